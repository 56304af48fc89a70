import "./look/theme.css";
import "./look/controls.css";
import "./look/forced-colors.css";
import { createRoot } from "react-dom/client";
import { App } from "./app.tsx";
import { startTheme } from "./look/theme.ts";
import { showWholeNames } from "./look/whole-name.ts";

startTheme();
showWholeNames(document);
createRoot(document.getElementById("page")!).render(<App />);
