package leveltally.core.exchange;

import leveltally.core.Refusal;

/**
 * The key by which a host is known, as its fingerprint: {@code SHA256:} and 43 characters of base 64, as OpenSSH shows it.
 */
public record HostKey(String fingerprint) {
    private static final String FORM = "SHA256:[A-Za-z0-9+/]{43}";

    public HostKey {
        if (!fingerprint.matches(FORM)) {
            throw Refusal.invalidField(
                    "host-key",
                    "hostKey",
                    "A host's key is pinned by its fingerprint, SHA256: and 43 characters, as the bank tells it.");
        }
    }
}
