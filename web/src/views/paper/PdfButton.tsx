import { useEffect, useRef, useState } from "react";
import { beginPdf, pdfAddress, pdfJob, stopPdf } from "../../data/http";
import type { PdfJob } from "../../data/types";
import { Button } from "../../ui/Button";
import { ONE_MOMENT } from "../../ui/Waiting";

const ASK_MS = 400;

interface Props {
  showId: string;
  sheet: string;
  onFault: (says: string) => void;
}

/** A PDF is made apart from the show's work: begun here, its pages counted, fetched when done. */
export function PdfButton({ showId, sheet, onFault }: Props) {
  const [job, setJob] = useState<PdfJob | null>(null);
  const here = useRef(true);
  const stopped = useRef(false);
  useEffect(() => {
    here.current = true;
    return () => {
      here.current = false;
    };
  }, []);
  const make = async () => {
    onFault("");
    try {
      let made = await beginPdf(showId, sheet);
      stopped.current = false;
      while (here.current && !stopped.current && !made.done && !made.fault) {
        setJob(made);
        await new Promise((resolve) => setTimeout(resolve, ASK_MS));
        if (!stopped.current) made = await pdfJob(showId, made.job);
      }
      if (!here.current || stopped.current) {
        setJob(null);
        return;
      }
      if (made.fault) onFault(made.fault);
      else location.assign(pdfAddress(showId, made.job));
    } catch (error) {
      onFault((error as Error).message);
    }
    setJob(null);
  };
  if (!job)
    return (
      <Button className="!h-8 !px-3" onClick={() => void make()}>
        PDF
      </Button>
    );
  const share = Math.min(1, job.pages / Math.max(1, job.about));
  const stop = () => {
    stopped.current = true;
    setJob(null);
    void stopPdf(showId, job.job).catch(() => undefined); // it ends by itself where nobody answers
  };
  return (
    <span className="inline-flex items-center gap-1">
      <span
        role="progressbar"
        aria-label="The PDF is being made"
        aria-valuemin={0}
        aria-valuemax={job.about}
        aria-valuenow={job.pages}
        className="relative inline-flex items-center h-8 px-3 rounded-xl border border-line bg-raise overflow-hidden whitespace-nowrap"
      >
        <span
          className="absolute inset-y-0 left-0 bg-sun/30"
          style={{ width: `${share * 100}%` }}
        />
        <span className="relative">
          {job.pages ? `page ${job.pages} of about ${job.about}` : ONE_MOMENT}
        </span>
      </span>
      <Button small aria-label="Stop making the PDF" title="Stop making it" onClick={stop}>
        Stop
      </Button>
    </span>
  );
}
