import { DropdownMenu } from "radix-ui";
import { useLocation } from "wouter";
import { signOut } from "../data/http";
import { toggleTheme } from "../data/settings";
import { useShow } from "../data/use";
import { ITEM, MENU, RULE } from "./menu";
import { viewOf } from "./places";

interface Opens {
  onKeys: () => void;
  onNotices: () => void;
}

/** Who is signed in: their settings, the theme, the keys, the guide, and the way out. */
export function PersonMenu(opens: Opens) {
  const name = useShow((state) => state.me?.name ?? "");
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger
        data-person-menu
        className="flex flex-col items-center gap-1 py-2.5 short:py-1 mx-1.5 mb-1.5 rounded-2xl cursor-pointer hover:bg-card"
      >
        <span
          aria-hidden
          className="w-8 h-8 rounded-full border border-edge grid place-items-center font-semibold text-[13px]"
        >
          {name.slice(0, 1).toUpperCase()}
          {name.slice(1, 2)}
        </span>
        <span className="sr-only">Menu of </span>
        <span dir="auto" className="text-soft text-[12px] max-w-full truncate short:sr-only">
          {name}
        </span>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content side="right" align="end" sideOffset={8} className={MENU}>
          <PersonItems {...opens} />
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

/** What a person has for themselves, in whichever menu. */
export function PersonItems({ onKeys, onNotices }: Opens) {
  const [path, navigate] = useLocation();
  const administrator = useShow((state) => state.me?.administrator ?? false);
  return (
    <>
      <DropdownMenu.Item className={ITEM} onSelect={() => navigate("/account")}>
        Your account
      </DropdownMenu.Item>
      {administrator && (
        <>
          <DropdownMenu.Item className={ITEM} onSelect={() => navigate("/accounts")}>
            Accounts
          </DropdownMenu.Item>
          <DropdownMenu.Item className={ITEM} onSelect={() => navigate("/backups")}>
            Backups
          </DropdownMenu.Item>
        </>
      )}
      <DropdownMenu.Item className={ITEM} onSelect={() => navigate("/settings")}>
        Settings
      </DropdownMenu.Item>
      <DropdownMenu.Item className={ITEM} onSelect={toggleTheme}>
        Dusk or daylight
      </DropdownMenu.Item>
      <DropdownMenu.Item className={ITEM} onSelect={onNotices}>
        Notices
      </DropdownMenu.Item>
      <DropdownMenu.Item className={ITEM} onSelect={onKeys}>
        Keys
      </DropdownMenu.Item>
      <DropdownMenu.Item className={ITEM} onSelect={() => navigate(`/guide?view=${viewOf(path)}`)}>
        Guide
      </DropdownMenu.Item>
      <DropdownMenu.Separator className={RULE} />
      <DropdownMenu.Item className={ITEM} onSelect={() => void signOut()}>
        Sign out
      </DropdownMenu.Item>
    </>
  );
}
