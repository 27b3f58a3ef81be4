import { configure } from "@testing-library/react";

// A busy machine may need longer than the usual second until a page shows what it fetched.
configure({ asyncUtilTimeout: 15_000 });
