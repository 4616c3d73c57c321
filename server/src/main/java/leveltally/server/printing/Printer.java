package leveltally.server.printing;

import java.util.List;
import leveltally.core.ledger.BankAccountId;

/** The outside world that puts pages onto paper. It never says what came out; people do. */
interface Printer {

    /**
     * Prints a run once.
     *
     * @param pdf all sheets of the run, number and MICR line included; not to be kept
     * @param documents the documents in the order of their sheets
     */
    void print(BankAccountId account, byte[] pdf, List<Long> documents);

    /** Prints a job on plain paper: remittance advice, never a check. */
    void printPlain(BankAccountId account, byte[] pdf, List<Long> documents);
}
