package leveltally.core.audit;

import java.util.Optional;

/** Walks the audit trail in order and finds the first record that does not follow from the one before. */
public final class AuditChain {
    private long sequence;
    private String head = AuditRecord.ORIGIN;

    /**
     * @param storedHash the hash kept with the record
     * @return what is wrong with it, in words; empty when it follows
     */
    public Optional<String> follow(AuditRecord record, String storedHash) {
        Optional<String> wrong = Optional.empty();
        if (record.sequence() != sequence + 1) {
            wrong = Optional.of("record " + (sequence + 1) + " is missing before record " + record.sequence());
        } else if (!record.previousHash().equals(head)) {
            wrong = Optional.of("record " + record.sequence() + " does not carry the hash of the one before");
        } else if (!record.hash().equals(storedHash)) {
            wrong = Optional.of("record " + record.sequence() + " was altered: its hash does not fit its content");
        }
        sequence = record.sequence();
        head = storedHash;
        return wrong;
    }

    /** The hash of the last record followed. */
    public String head() {
        return head;
    }

    public long length() {
        return sequence;
    }
}
