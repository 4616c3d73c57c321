package leveltally.server.electronic;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import leveltally.core.bankfiles.FileState;
import org.jspecify.annotations.Nullable;

/**
 * Where the payments of a batch stand that go by file.
 *
 * @param notSetUp why no file can be made by this way at all; empty when one can
 * @param paysOn the day payees have the money of a file made now; null where none can be made
 * @param until until when the bank takes files of a day, in words
 * @param toFile how many can go into a file now, which come to {@code toFileAmount}
 * @param sizes how many go into each file, where they go into several
 * @param refused why what waits cannot go into files together; empty when it can
 * @param toAnnounce how many accounts have to be announced before anything goes there
 * @param fileable whether anything can be done with it here
 */
record FilingView(
        long account,
        String accountName,
        String currency,
        String way,
        String notSetUp,
        @Nullable LocalDate paysOn,
        String until,
        int toFile,
        String toFileAmount,
        List<Integer> sizes,
        String refused,
        int toAnnounce,
        boolean fileable,
        List<FilingLine> payments,
        List<PaymentFileView> files) {

    /** How far a payment came. */
    enum Step {
        /** For a file; perhaps again, because the bank refused it. */
        WAITS,
        KEPT_BACK,
        /** The bank said nothing of it yet. */
        IN_FILE,
        TAKEN,
        POSTED,
        /** In the ledger no more: reversed, or sent back. */
        UNDONE
    }

    /**
     * @param bank where it goes, masked
     * @param called its reference; empty where it has none yet
     * @param file the serial of the one that carries it
     * @param why what keeps it back, or what the bank found wrong before
     */
    record FilingLine(
            long claim,
            @Nullable Long payment,
            String payee,
            String bank,
            String amount,
            String called,
            Step step,
            @Nullable Long file,
            String why) {}

    /**
     * @param follows the serial of the refused file whose payments it carries again
     * @param announced how many accounts it announces instead of paying anything
     * @param handedAt when somebody last took it to hand it over himself; null while nobody did
     */
    record PaymentFileView(
            long id,
            long serial,
            String name,
            Instant madeAt,
            String madeBy,
            int payments,
            int announced,
            String total,
            LocalDate paysOn,
            FileState state,
            String words,
            String note,
            @Nullable Long follows,
            @Nullable Instant handedAt,
            @Nullable String handedBy) {}
}
