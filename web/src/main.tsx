import "./look/theme.css";
import "./look/controls.css";
import { createRoot } from "react-dom/client";
import { App } from "./app.tsx";

createRoot(document.getElementById("page")!).render(<App />);
