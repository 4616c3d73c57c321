package leveltally.server.exchange;

import java.io.IOException;

/** The host shows another key than the one that was pinned, or none was pinned yet. */
final class HostNotKnown extends IOException {
    private static final long serialVersionUID = 1;

    private final String shown;

    HostNotKnown(String sentence, String shown) {
        super(sentence);
        this.shown = shown;
    }

    /** Its fingerprint. */
    String shown() {
        return shown;
    }
}
