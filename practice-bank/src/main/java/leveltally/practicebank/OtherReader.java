package leveltally.practicebank;

import java.util.List;

/** What the bank makes of a file by its description alone: a second opinion on what was written. */
public final class OtherReader {
    private OtherReader() {}

    /**
     * @param description of the layout, as {@code level-tally bank layout 1}
     * @param decimals of the currency
     */
    public static List<ToldCheck> read(String description, String accountNumber, int decimals, byte[] content)
            throws Unreadable {
        return new FileDesk(Specification.of(description), accountNumber, decimals).read(content);
    }

    /** What the bank makes of a file of credit transfers. */
    public static List<PaidEntry> readTransfers(byte[] content) throws Unreadable {
        TransferDesk desk = new TransferDesk(content);
        desk.read();
        return desk.entries();
    }

    /** What the bank makes of an ACH file. */
    public static List<PaidEntry> readAch(byte[] content) throws Unreadable {
        return AchDesk.read(content);
    }
}
