import "@fontsource/literata/500.css";
import "@fontsource-variable/source-sans-3/wght.css";
import { createRoot } from "react-dom/client";
import { App } from "./app/App";

createRoot(document.getElementById("root")!).render(<App />);
