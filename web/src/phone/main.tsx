import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { beginNonce } from "../data/nonce";
import { PhoneApp } from "./PhoneApp";
import "../index.css";
import "./phone.css";

beginNonce();
createRoot(document.getElementById("root")!).render(
  <StrictMode>
    <PhoneApp />
  </StrictMode>,
);
