package leveltally.core.electronic;

import java.io.IOException;
import java.io.OutputStream;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.List;
import leveltally.core.ledger.RoutingNumber;
import org.jspecify.annotations.Nullable;

/**
 * Writes an ACH file record by record (NACHA operating rules, appendix of record layouts): credits to payees in batches, each of
 * one entry class and one effective day; records of 94 characters, in blocks of ten.
 */
public final class AchWriter {
    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("yyMMdd");
    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("HHmm");
    private static final int BLOCK = 10;
    private static final int CREDITS = 220;
    private static final int MIXED = 200;
    private static final int TO_CHECKING = 22;
    private static final int TO_SAVINGS = 32;
    private static final int FROM_CHECKING = 27;
    private static final int PRENOTIFIES = 1;
    /** The nine digits of a routing number without the one that checks them. */
    private static final int DFI = 8;

    private final AchSender sender;
    private final String odfi;
    private final OutputStream out;
    private final AchRecord record = new AchRecord();
    private long records;
    private int batches;
    private AchTotals file = AchTotals.NONE;
    private @Nullable Batch batch;

    private static final class Batch {
        private final EntryClass entryClass;
        private AchTotals totals = AchTotals.NONE;
        private int last;

        Batch(EntryClass entryClass) {
            this.entryClass = entryClass;
        }
    }

    /**
     * @param made when, by the company's clock
     * @param modifier tells files of one day apart: A to Z, then 0 to 9
     */
    public AchWriter(AchSender sender, LocalDateTime made, char modifier, OutputStream out) throws IOException {
        this.sender = sender;
        this.odfi = sender.odfi().digits().substring(0, DFI);
        this.out = out;
        write(record.begin('1')
                .figure(2, 3, 1)
                .atTheRight(4, 13, sender.destination().digits())
                .atTheRight(14, 23, sender.origin())
                .text(24, 29, made.format(DAY))
                .text(30, 33, made.format(TIME))
                .text(34, 34, String.valueOf(modifier))
                .figure(35, 37, AchRecord.LENGTH)
                .figure(38, 39, BLOCK)
                .figure(40, 40, 1)
                .text(41, 63, sender.destinationName())
                .text(64, 86, sender.originName()));
    }

    /**
     * Begins a batch.
     *
     * @param effective the banking day on which payees are to have the money
     */
    public void begin(EntryClass entryClass, LocalDate effective) throws IOException {
        if (batch != null) {
            throw new IllegalStateException("the batch before has not ended");
        }
        batch = new Batch(entryClass);
        batches++;
        write(record.begin('5')
                .figure(2, 4, serviceClass())
                .text(5, 20, sender.companyName())
                .text(41, 50, sender.companyId())
                .text(51, 53, entryClass.name())
                .text(54, 63, sender.description())
                .text(64, 69, effective.format(DAY))
                .text(70, 75, effective.format(DAY))
                .figure(79, 79, 1)
                .text(80, 87, odfi)
                .figure(88, 94, batches));
    }

    private int serviceClass() {
        return sender.offset() == null ? CREDITS : MIXED;
    }

    /** Writes an entry and its addenda; sequences rise within a batch. */
    public void entry(AchEntry entry) throws IOException {
        Batch in = open();
        if (entry.addenda().size() > in.entryClass.mostAddenda()) {
            throw new IllegalArgumentException(
                    "entry " + entry.sequence() + " says more than a " + in.entryClass + " entry can");
        }
        if (entry.sequence() <= in.last) {
            throw new IllegalArgumentException("entry " + entry.sequence() + " does not follow " + in.last);
        }
        in.last = entry.sequence();
        int code = (entry.savings() ? TO_SAVINGS : TO_CHECKING) + (entry.isPrenotification() ? PRENOTIFIES : 0);
        begun(code, entry.bank(), entry.account(), entry.amount().minor());
        record.text(40, 54, entry.reference());
        if (in.entryClass == EntryClass.CTX) {
            record.figure(55, 58, entry.addenda().size()).text(59, 74, entry.payee());
        } else {
            record.text(55, 76, entry.payee());
        }
        ended(entry.sequence(), !entry.addenda().isEmpty());
        addenda(entry.addenda(), entry.sequence());
        in.totals = in.totals.with(new AchTotals(
                1 + entry.addenda().size(),
                hash(entry.bank()),
                0,
                entry.amount().minor()));
    }

    private void begun(int code, RoutingNumber bank, String account, long minor) {
        record.begin('6')
                .figure(2, 3, code)
                .text(4, 12, bank.digits())
                .text(13, 29, account)
                .figure(30, 39, minor);
    }

    private void ended(int sequence, boolean hasAddenda) throws IOException {
        write(record.figure(79, 79, hasAddenda ? 1 : 0).text(80, 87, odfi).figure(88, 94, sequence));
    }

    private void addenda(List<String> addenda, int sequence) throws IOException {
        for (int i = 0; i < addenda.size(); i++) {
            write(record.begin('7')
                    .figure(2, 3, 5)
                    .text(4, 83, addenda.get(i))
                    .figure(84, 87, i + 1L)
                    .figure(88, 94, sequence));
        }
    }

    private static long hash(RoutingNumber bank) {
        return Integer.parseInt(bank.digits(), 0, DFI, 10);
    }

    private Batch open() {
        if (batch == null) {
            throw new IllegalStateException("no batch has begun");
        }
        return batch;
    }

    /** Ends a batch; where the company's account is debited with it, that is its last entry. */
    public void end() throws IOException {
        Batch in = open();
        String offset = sender.offset();
        if (offset != null && in.totals.credit() > 0) {
            long total = in.totals.credit();
            begun(FROM_CHECKING, sender.odfi(), offset, total);
            record.text(
                    55,
                    in.entryClass == EntryClass.CTX ? 58 : 76,
                    in.entryClass == EntryClass.CTX ? "0000" : sender.companyName());
            if (in.entryClass == EntryClass.CTX) {
                record.text(59, 74, sender.companyName());
            }
            // the numbers of payments end below
            ended(FiledPayment.SEQUENCES + batches, false);
            in.totals = in.totals.with(new AchTotals(1, hash(sender.odfi()), total, 0));
        }
        write(record.begin('8')
                .figure(2, 4, serviceClass())
                .figure(5, 10, in.totals.count())
                .figure(11, 20, in.totals.hashWritten())
                .figure(21, 32, in.totals.debit())
                .figure(33, 44, in.totals.credit())
                .text(45, 54, sender.companyId())
                .text(80, 87, odfi)
                .figure(88, 94, batches));
        file = file.with(in.totals);
        batch = null;
    }

    /** Ends the file, filled up to a whole block. */
    public AchTotals finish() throws IOException {
        if (batch != null) {
            throw new IllegalStateException("a batch has not ended");
        }
        long blocks = (records + 1 + BLOCK - 1) / BLOCK;
        write(record.begin('9')
                .figure(2, 7, batches)
                .figure(8, 13, blocks)
                .figure(14, 21, file.count())
                .figure(22, 31, file.hashWritten())
                .figure(32, 43, file.debit())
                .figure(44, 55, file.credit()));
        String nines = "9".repeat(AchRecord.LENGTH);
        while (records < blocks * BLOCK) {
            write(record.begin('9').text(1, AchRecord.LENGTH, nines));
        }
        return file;
    }

    private void write(AchRecord one) throws IOException {
        one.writeTo(out);
        records++;
    }
}
