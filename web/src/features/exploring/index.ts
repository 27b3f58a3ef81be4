export { WhatIfPage } from "./WhatIfPage";
