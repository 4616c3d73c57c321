package leveltally.core.audit;

import java.time.Instant;
import java.util.List;
import leveltally.core.Sha256;

/**
 * One record of the audit trail (law L10), chained to the one before by its hash.
 *
 * @param sequence 1, 2, 3 … without gaps
 * @param at the real instant, in microseconds
 * @param deed what was done; {@code subject} to what, such as {@code batch 7}; {@code detail} before and after, as JSON
 */
public record AuditRecord(
        long sequence,
        Instant at,
        long person,
        String from,
        String deed,
        String subject,
        String detail,
        String previousHash) {

    /** The hash before the first record. */
    public static final String ORIGIN = "0".repeat(64);

    /** SHA-256 over all fields, each with its length before it; 64 lower-case hex digits. */
    public String hash() {
        StringBuilder form = new StringBuilder();
        for (String field : List.of(
                String.valueOf(sequence),
                String.valueOf(at.getEpochSecond() * 1_000_000 + at.getNano() / 1_000),
                String.valueOf(person),
                from,
                deed,
                subject,
                detail,
                previousHash)) {
            form.append(field.length()).append(':').append(field).append('|');
        }
        return Sha256.hex(form.toString());
    }
}
