declare module "virtual:theme.css";
