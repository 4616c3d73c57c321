package leveltally.server.printing;

import java.time.Instant;
import java.util.List;
import leveltally.core.printers.Outcome;
import leveltally.core.printing.Answer;
import leveltally.server.printers.PrinterView;
import org.jspecify.annotations.Nullable;

/**
 * Where the printing of a batch stands: the turn, who has no number yet, what came out and what was said of it.
 *
 * @param printers that may be printed on
 * @param usualPrinter of these, what this person used for such checks last
 */
public record PrintingView(
        long account,
        String accountName,
        long nextNumber,
        boolean sameNumberReprint,
        boolean paperHasNumbers,
        String loading,
        String foretold,
        List<PrinterView> printers,
        long usualPrinter,
        @Nullable TurnView turn,
        int toNumber,
        String toNumberAmount,
        List<UnnumberedView> unnumbered,
        List<AdviceView> advices,
        int onOwnNumber,
        int unanswered,
        boolean printable,
        List<RunView> runs) {

    record TurnView(long serial, String holder, boolean mine, boolean forThisBatch, long idleMinutes, boolean idle) {}

    /** A payment without a number; {@code why} says what keeps it behind, empty when nothing does. */
    record UnnumberedView(long claim, String payee, String amount, String goes, String why) {}

    /** Remittance advice, on plain paper; {@code pages} of all its payments together. */
    record AdviceView(
            long run,
            boolean sent,
            int payments,
            int pages,
            @Nullable PrinterAnswerView given) {}

    /** {@code outcome} is what lies in the stand-in's tray: PRINTED, SMEARED, TORN, BLANK; absent before. */
    record SheetView(
            long document,
            long claim,
            long number,
            String payee,
            String amount,
            String goes,
            int pages,
            @Nullable String outcome,
            @Nullable Answer answer,
            String why,
            boolean posted) {}

    record RunView(
            long run,
            boolean sent,
            String madeBy,
            List<SheetView> sheets,
            @Nullable PrinterAnswerView given) {}

    /**
     * The last time a run was given to a printer.
     *
     * @param outcome NOT_KNOWN also while it is under way
     * @param words what is known, in a sentence
     */
    record PrinterAnswerView(String printer, Outcome outcome, String words, Instant at) {}
}
