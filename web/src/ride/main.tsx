import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { beginNonce } from "../data/nonce";
import { RideApp } from "./RideApp";
import "../index.css";
import "../phone/phone.css";

beginNonce();
createRoot(document.getElementById("root")!).render(
  <StrictMode>
    <RideApp />
  </StrictMode>,
);
