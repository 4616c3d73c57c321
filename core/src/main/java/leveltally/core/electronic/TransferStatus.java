package leveltally.core.electronic;

/**
 * What a bank says of a file of credit transfers, of a group of it, or of one transfer.
 *
 * @param id of the message, of the group, or end to end
 * @param reason why, in words; empty where the bank says none
 */
public record TransferStatus(Of of, String id, Verdict verdict, String reason) {
    /** Of how much it speaks. */
    public enum Of {
        FILE,
        GROUP,
        TRANSFER
    }

    /** What it comes to for whoever pays. */
    public enum Verdict {
        TOOK,
        REFUSED,
        /** The bank has it, and has not said what becomes of it. */
        NOT_KNOWN,
        /** Parts of it are told by themselves. */
        IN_PART;

        /** @param code of ISO 20022's external payment status codes; one that is not known says nothing yet */
        static Verdict of(String code) {
            return switch (code) {
                case "ACTC", "ACCP", "ACSP", "ACSC", "ACWC", "ACFC", "ACCC" -> TOOK;
                case "RJCT", "CANC" -> REFUSED;
                case "PART", "PATC" -> IN_PART;
                default -> NOT_KNOWN;
            };
        }
    }
}
