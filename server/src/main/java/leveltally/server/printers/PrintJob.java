package leveltally.server.printers;

import java.util.List;
import leveltally.core.ledger.BankAccountId;

/**
 * Pages for a printer.
 *
 * @param pdf number and MICR line included; not to be kept
 * @param documents what lies on them, in the order of their sheets; empty for test pages
 * @param plain on plain paper: remittance advice or a test, never a check
 */
public record PrintJob(String title, BankAccountId account, byte[] pdf, List<Long> documents, boolean plain) {
    public PrintJob {
        documents = List.copyOf(documents);
    }
}
