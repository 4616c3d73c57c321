package leveltally.server.printing;

import leveltally.core.Refusal;

/** The reasons that deeds at the printer ask for. */
final class Reasons {
    private Reasons() {}

    /**
     * @param missing what to do where none was typed
     * @throws Refusal when none was typed
     */
    static String given(String typed, String missing) {
        if (typed.isBlank()) {
            throw Refusal.invalidField("reason-missing", "why", missing);
        }
        return typed.strip();
    }
}
