import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { App } from "./App";
import { beginNonce } from "./data/nonce";
import { beginHabits } from "./data/settings";
import "./index.css";

beginNonce();
beginHabits();
createRoot(document.getElementById("root")!).render(
  <StrictMode>
    <App />
  </StrictMode>,
);
