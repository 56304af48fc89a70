import "../look/theme.css";
import "../look/controls.css";
import "./play.css";
import { createRoot } from "react-dom/client";
import { startTheme } from "../look/theme.ts";
import { PlayPage } from "./play-page.tsx";

startTheme();
createRoot(document.getElementById("page")!).render(<PlayPage />);
