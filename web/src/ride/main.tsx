import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { RideApp } from "./RideApp";
import "../index.css";
import "../phone/phone.css";

createRoot(document.getElementById("root")!).render(
  <StrictMode>
    <RideApp />
  </StrictMode>,
);
