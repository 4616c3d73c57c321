package leveltally.practicebank;

import java.nio.charset.StandardCharsets;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** How the bank reads an ACH file: each record by a pattern of the rules, everything that can be added up added up again. */
final class AchDesk {
    private static final Pattern FILE =
            Pattern.compile("101(.{10})(.{10})(\\d{6})(\\d{4})([A-Z0-9])094101(.{23})(.{23})(.{8})");
    private static final Pattern BATCH =
            Pattern.compile("5(200|220)(.{16})(.{20})(.{10})(CCD|PPD|CTX)(.{10})(.{6})(\\d{6}) {3}1(\\d{8})(\\d{7})");
    private static final Pattern ENTRY =
            Pattern.compile("6(22|23|32|33|27)(\\d{9})(.{17})(\\d{10})(.{15})(.{22})(.{2})([01])(\\d{15})");
    private static final Pattern ADDENDUM = Pattern.compile("705(.{80})(\\d{4})(\\d{7})");
    private static final Pattern BATCH_END =
            Pattern.compile("8(200|220)(\\d{6})(\\d{10})(\\d{12})(\\d{12})(.{10}) {19} {6}(\\d{8})(\\d{7})");
    private static final Pattern FILE_END =
            Pattern.compile("9(\\d{6})(\\d{6})(\\d{8})(\\d{10})(\\d{12})(\\d{12}) {39}");
    private static final long TEN_DIGITS = 10_000_000_000L;

    private final List<PaidEntry> entries = new ArrayList<>();
    private final List<String> lines;
    private int at;

    private static final class Sum {
        private long count;
        private long hash;
        private long debit;
        private long credit;

        void add(Sum other) {
            count += other.count;
            hash += other.hash;
            debit += other.debit;
            credit += other.credit;
        }
    }

    private AchDesk(byte[] content) {
        this.lines = new String(content, StandardCharsets.ISO_8859_1).lines().toList();
    }

    static List<PaidEntry> read(byte[] content) throws Unreadable {
        AchDesk desk = new AchDesk(content);
        desk.file();
        return desk.entries;
    }

    private void file() throws Unreadable {
        next(FILE, "the head of a file");
        Sum all = new Sum();
        int batches = 0;
        while (at < lines.size() && lines.get(at).startsWith("5")) {
            all.add(batch(++batches));
        }
        Matcher end = next(FILE_END, "the end of the file");
        int blocks = (at + 9) / 10;
        agree(end, 1, batches, "batches");
        agree(end, 2, blocks, "blocks");
        agree(end, 3, all.count, "entries and addenda");
        agree(end, 4, all.hash % TEN_DIGITS, "the sum of routing numbers");
        agree(end, 5, all.debit, "debits");
        agree(end, 6, all.credit, "credits");
        if (lines.size() != blocks * 10
                || !lines.subList(at, lines.size()).stream().allMatch(line -> line.matches("9{94}"))) {
            throw new Unreadable("The last block is not filled with nines");
        }
    }

    private Sum batch(int number) throws Unreadable {
        Matcher head = next(BATCH, "the head of a batch");
        agree(head, 10, number, "the number of the batch");
        boolean many = head.group(5).equals("CTX");
        LocalDate paysOn = day(head.group(8));
        Sum sum = new Sum();
        long last = 0;
        while (at < lines.size() && lines.get(at).startsWith("6")) {
            Matcher entry = next(ENTRY, "an entry");
            long trace = Long.parseLong(entry.group(9));
            if (trace <= last || !entry.group(9).startsWith(head.group(9))) {
                throw new Unreadable("Record " + at + ": trace numbers rise, and begin with the bank's own digits");
            }
            last = trace;
            routed(entry.group(2));
            sum.count++;
            sum.hash += Long.parseLong(entry.group(2).substring(0, 8));
            if (entry.group(1).equals("27")) {
                sum.debit += Long.parseLong(entry.group(4));
            } else {
                sum.credit += Long.parseLong(entry.group(4));
            }
            String says = addenda(entry, many, sum);
            if (!entry.group(1).equals("27")) {
                String payee = many ? entry.group(6).substring(4, 20) : entry.group(6);
                entries.add(new PaidEntry(
                        entry.group(2),
                        entry.group(3).strip(),
                        entry.group(1).startsWith("3"),
                        Long.parseLong(entry.group(4)),
                        entry.group(5).strip(),
                        payee.strip(),
                        entry.group(9),
                        says,
                        paysOn));
            }
        }
        Matcher end = next(BATCH_END, "the end of a batch");
        agree(end, 2, sum.count, "entries and addenda");
        agree(end, 3, sum.hash % TEN_DIGITS, "the sum of routing numbers");
        agree(end, 4, sum.debit, "debits");
        agree(end, 5, sum.credit, "credits");
        agree(end, 8, number, "the number of the batch");
        return sum;
    }

    private LocalDate day(String stands) throws Unreadable {
        try {
            return LocalDate.parse("20" + stands, DateTimeFormatter.BASIC_ISO_DATE);
        } catch (DateTimeException none) {
            throw new Unreadable("Record " + at + ": " + stands + " is no day");
        }
    }

    private String addenda(Matcher entry, boolean many, Sum sum) throws Unreadable {
        StringBuilder says = new StringBuilder();
        int count = 0;
        while (at < lines.size() && lines.get(at).startsWith("7")) {
            Matcher addendum = next(ADDENDUM, "an addendum");
            agree(addendum, 2, ++count, "the number of the addendum");
            agree(addendum, 3, Long.parseLong(entry.group(9).substring(8)), "the entry it belongs to");
            says.append(addendum.group(1));
            sum.count++;
        }
        boolean told = entry.group(8).equals("1");
        int most = many ? 9_999 : 1;
        if (told != count > 0
                || count > most
                || many && Integer.parseInt(entry.group(6).substring(0, 4)) != count) {
            throw new Unreadable("Record " + at + ": an entry has other addenda than it says");
        }
        return says.toString().stripTrailing();
    }

    private void routed(String number) throws Unreadable {
        int sum = 0;
        for (int i = 0; i < number.length(); i++) {
            sum += (number.charAt(i) - '0') * new int[] {3, 7, 1}[i % 3];
        }
        if (sum % 10 != 0) {
            throw new Unreadable("Record " + at + ": " + number + " is no routing number");
        }
    }

    private Matcher next(Pattern pattern, String what) throws Unreadable {
        if (at == lines.size()) {
            throw new Unreadable("The file ends where " + what + " should stand");
        }
        Matcher matcher = pattern.matcher(lines.get(at++));
        if (!matcher.matches()) {
            throw new Unreadable("Record " + at + " is not " + what);
        }
        return matcher;
    }

    private void agree(Matcher record, int group, long comesTo, String what) throws Unreadable {
        if (Long.parseLong(record.group(group)) != comesTo) {
            throw new Unreadable(
                    "Record " + at + " says of " + what + " " + record.group(group) + ", it comes to " + comesTo);
        }
    }
}
