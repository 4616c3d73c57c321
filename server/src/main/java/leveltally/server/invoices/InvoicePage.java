package leveltally.server.invoices;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import leveltally.server.frame.MoneyView;
import org.jspecify.annotations.Nullable;

/**
 * Everything about one document: what it says, where it stands, and what became of it.
 *
 * @param state where it stands, in words
 * @param discount what its terms let be taken, in words; empty where they let nothing
 * @param corrects the entry number of the document it was entered anew for, {@code correctedBy} of the one in its place
 * @param cancels why it cannot be cancelled whole now; null where it can
 * @param changes why its terms cannot be changed now; null where they can
 * @param comesBack whether the vendor can send money back for it
 * @param ahead for a prepayment, the payment by which it was paid; null for anything else
 * @param waiting what was paid ahead of it, and is not matched with it yet
 * @param statement whether it is of the issuer of a company card, so that payments by card can stand on it
 */
public record InvoicePage(
        long id,
        String kind,
        String kindWords,
        long vendor,
        String vendorName,
        String reference,
        LocalDate invoiceDate,
        LocalDate ledgerDate,
        LocalDate dueDate,
        @Nullable LocalDate discountDate,
        @Nullable LocalDate usableFrom,
        MoneyView amount,
        MoneyView open,
        String notDiscountable,
        String discount,
        String state,
        long remitTo,
        List<InvoiceAddress> addresses,
        boolean ownCheck,
        @Nullable String hold,
        @Nullable String file,
        @Nullable Long corrects,
        @Nullable Long correctedBy,
        List<DocumentLine> lines,
        List<SettledRow> settled,
        List<InBatch> batches,
        List<NoteRow> notes,
        @Nullable String cancels,
        @Nullable String changes,
        boolean comesBack,
        @Nullable AheadBy ahead,
        List<WaitingAhead> waiting,
        boolean statement) {
    record InvoiceAddress(long id, String words) {}

    record DocumentLine(String code, String account, String amount, String job) {}

    /** @param to the view of the payment */
    record AheadBy(String name, String to) {}

    /** @param from the day from which it can be used, in words; empty for at once */
    record WaitingAhead(long id, String reference, String open, String from) {}

    /**
     * One row that moved what is open.
     *
     * @param offset set where it is an offset that can be taken back
     * @param open what was open after it
     * @param to the view of what did it; empty where there is none
     * @param refund set where it is money sent back that can be taken back
     */
    record SettledRow(
            LocalDate date,
            String words,
            String by,
            String amount,
            String open,
            String to,
            @Nullable Long refund,
            @Nullable Long offset) {}

    /** @param check its number's id in the register; null where none was taken */
    record InBatch(
            long batch,
            String name,
            String state,
            String cash,
            @Nullable Long check,
            @Nullable Long number) {}

    record NoteRow(Instant at, String who, String text) {}
}
