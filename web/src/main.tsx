import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { App } from "./App";
import { beginHabits } from "./data/settings";
import "./index.css";

beginHabits();
createRoot(document.getElementById("root")!).render(
  <StrictMode>
    <App />
  </StrictMode>,
);
