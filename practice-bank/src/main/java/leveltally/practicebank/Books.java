package leveltally.practicebank;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/** What the bank knows of one account; kept as it is after each day. */
final class Books {
    public String accountNumber = "";
    public String currency = "";
    public int decimals;
    public long balanceMinor;
    public long statement;
    public LocalDate until = LocalDate.EPOCH;
    /** How many days passed here. */
    public int days;

    public PracticeBank.Writes writes = PracticeBank.Writes.COLUMNS_AND_CAMT;

    public Map<Long, Check> checks = new TreeMap<>();
    /** What the next statement tells. */
    public List<Agreement.Moved> moved = new ArrayList<>();
    /** Payments ordered by files. */
    public List<Entry> entries = new ArrayList<>();
    /** Files taken, by the hash of their bytes, so that none is taken twice. */
    public Map<String, String> taken = new HashMap<>();

    public List<Mischief> ordered = new ArrayList<>();
    /** Paper of the bank that goes out on a day to come, or when it is asked for; its text by its name. */
    public Map<String, Held> held = new TreeMap<>();
    /** What others brought to the account, by their own key. */
    public List<String> brought = new ArrayList<>();
    /** What the bank did wrong and puts right by itself. */
    public List<Fault> faults = new ArrayList<>();

    /** A check it hears of otherwise than by a file; what it knows of one it paid stays. */
    void know(Agreement.Known known) {
        Check check = checks.computeIfAbsent(known.number(), first -> new Check());
        if (!check.told) {
            check.told = true;
            check.minor = known.minor();
            check.due = Presenting.due(accountNumber, known.number(), days);
        }
        // a stop that was lifted lets it be brought again
        if (check.paid == 0 && check.voided != known.voided()) {
            check.voided = known.voided();
            check.due = known.voided() ? 0 : Presenting.due(accountNumber, known.number(), days);
        }
    }

    /** @param asked it goes out only when somebody asks for it */
    record Held(byte[] content, int onDay, boolean asked) {}

    /** @param minor what it owes, put right on a day */
    record Fault(long check, long minor, int onDay) {}

    /**
     * A payment by file: when it was paid, and when it comes back, in days counted from the first, 0 for never; {@code message}
     * the file it stood in, empty for ACH.
     */
    static final class Entry {
        public PaidEntry entry;
        public String message = "";
        public int paid;
        public int back;
        public boolean gone;
    }

    /** A check: told, voided, paid; {@code due} the day, counted from the first, on which it comes in, 0 for never. */
    static final class Check {
        public long minor;
        public boolean told;
        public boolean voided;
        public int due;
        public int paid;
        public long paidMinor;
    }
}
