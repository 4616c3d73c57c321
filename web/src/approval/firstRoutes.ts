import type { Schemas } from "../api/client";

/** What a company starts with before any routes were kept. */
export const FIRST: Schemas["PolicyContent"] = {
  routes: [
    {
      name: "Everyday",
      accounts: [],
      totalOver: [],
      paymentOver: [],
      marks: [],
      steps: [
        {
          name: "Approval",
          role: "APPROVER",
          people: [],
          needed: 1,
          remindAfterHours: 24,
          escalateAfterHours: 0,
          secondLine: [],
        },
      ],
    },
  ],
};
