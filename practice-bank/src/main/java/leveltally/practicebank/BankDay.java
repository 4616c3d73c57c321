package leveltally.practicebank;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.Predicate;

/** One day of one account: what comes in, what is paid, what is told; and what goes wrong because somebody ordered it. */
final class BankDay {
    private static final int PUT_RIGHT_AFTER = 2;
    private static final long RAISED_MINOR = 90_000;

    private final Books books;
    private final LocalDate day;
    private final Optional<Specification> agreed;
    private final Map<String, byte[]> papers = new TreeMap<>();
    private final List<String> did = new ArrayList<>();

    /** @param agreed how the company's files are to be read; empty where nobody said that any come */
    BankDay(Books books, LocalDate day, Optional<Specification> agreed) {
        this.books = books;
        this.day = day;
        this.agreed = agreed;
        books.days++;
    }

    Map<String, byte[]> papers() {
        return papers;
    }

    List<String> did() {
        return did;
    }

    /** Takes a file and answers it; the same bytes are taken once. */
    void take(String name, byte[] content) {
        String hash = hash(content);
        if (books.taken.containsKey(hash)) {
            did.add("Passed over " + name + ": its bytes came before as " + books.taken.get(hash) + ".");
            return;
        }
        books.taken.put(hash, name);
        if (name.startsWith("decisions")) {
            Decided.read(content).forEach(this::decide);
            return;
        }
        if (PaymentDesk.takes(content)) {
            Optional<String> refused =
                    payments().take(name, content, ordered(Mischief.REFUSE_FILE), ordered(Mischief.REFUSE_EVENT));
            refused.ifPresent(why -> did.add("Refused " + name + ": " + why + "."));
            if (name.endsWith(".ach")) {
                answer(name, new Answer(refused, List.of()));
            }
            return;
        }
        Answer answer;
        try {
            answer = new Answer(
                    ordered(Mischief.REFUSE_FILE)
                            ? Optional.of("Damaged on its way, please send it again")
                            : Optional.empty(),
                    new ArrayList<>());
            if (answer.refused().isEmpty()) {
                List<ToldCheck> told = desk().read(content);
                boolean first = ordered(Mischief.REFUSE_EVENT, !told.isEmpty());
                for (ToldCheck one : told) {
                    if (first) {
                        answer.checks()
                                .add(new Answer.Refused(one.number(), "Not legible to us, please tell it again"));
                        first = false;
                    } else {
                        learn(one).ifPresent(why -> answer.checks().add(new Answer.Refused(one.number(), why)));
                    }
                }
                did.add("Took " + name + " with " + told.size() + (told.size() == 1 ? " check" : " checks")
                        + (answer.checks().isEmpty()
                                ? "."
                                : ", refused " + answer.checks().size() + " of them."));
            } else {
                did.add("Refused " + name + ".");
            }
        } catch (Unreadable unreadable) {
            answer(name, new Answer(Optional.of(unreadable.sentence()), List.of()));
            did.add("Refused " + name + ": " + unreadable.sentence() + ".");
            return;
        }
        answer(name, answer);
    }

    private PaymentDesk payments() {
        return new PaymentDesk(books, day, papers, did);
    }

    private FileDesk desk() throws Unreadable {
        return new FileDesk(
                agreed.orElseThrow(() -> new Unreadable("Nobody agreed with us on how your files are written")),
                books.accountNumber,
                books.decimals);
    }

    private void answer(String name, Answer answer) {
        papers.put("answer-" + name.replaceFirst("\\.[^.]*$", "") + ".txt", answer.written(name));
    }

    /** @return why the bank does not take it; empty when it does */
    private Optional<String> learn(ToldCheck told) {
        Books.Check check = books.checks.get(told.number());
        if (!told.issued()) {
            if (check == null || !check.told) {
                return Optional.of("No such check was told to us");
            }
            if (check.paid > 0) {
                return Optional.of("Paid already");
            }
            check.voided = true;
            check.due = 0;
            return Optional.empty();
        }
        if (check != null && check.told) {
            boolean same = told.minor() == null || told.minor() == check.minor;
            return same ? Optional.empty() : Optional.of("Told before with another amount");
        }
        Books.Check added = check == null ? new Books.Check() : check;
        added.told = true;
        added.minor = told.minor() == null ? 0 : told.minor();
        added.due = Presenting.due(books.accountNumber, told.number(), books.days);
        books.checks.put(told.number(), added);
        return Optional.empty();
    }

    /** Returned: what was paid goes back to whoever presented it. */
    private void decide(Decided one) {
        Books.Check check = books.checks.get(one.number());
        if (!one.pays() && check != null && check.paid > 0) {
            move(one.number(), check.paidMinor, "Check " + one.number() + " returned");
            check.paid = 0;
            check.paidMinor = 0;
            check.due = 0;
            books.faults.removeIf(fault -> fault.check() == one.number());
            did.add("Returned check " + one.number() + ".");
        }
    }

    void payAndTell() {
        for (Books.Fault fault : List.copyOf(books.faults)) {
            if (fault.onDay() <= books.days) {
                move(0, fault.minor(), "Correction of check " + fault.check());
                books.faults.remove(fault);
                did.add("Put check " + fault.check() + " right.");
            }
        }
        boolean paysByFile = books.entries.stream().anyMatch(one -> !one.gone);
        payments()
                .payAndSendBack(ordered(Mischief.SEND_BACK, paysByFile), ordered(Mischief.CORRECT_ACCOUNT, paysByFile));
        List<Agreement.Moved> paid = new ArrayList<>();
        boolean wrong = ordered(Mischief.ENCODE_WRONG, due() > 0);
        boolean altered = ordered(Mischief.PAY_ALTERED, due() > (wrong ? 1 : 0));
        for (var entry : books.checks.entrySet()) {
            if (isDue(entry.getValue())) {
                long minor = entry.getValue().minor;
                if (wrong) {
                    wrong = false;
                    long read = misread(minor);
                    books.faults.add(new Books.Fault(entry.getKey(), read - minor, books.days + PUT_RIGHT_AFTER));
                    minor = read;
                } else if (altered) {
                    altered = false;
                    minor += RAISED_MINOR;
                }
                paid.add(pay(entry.getKey(), entry.getValue(), minor));
            }
        }
        again(Mischief.PAY_VOIDED, check -> check.voided && check.paid == 0, false)
                .ifPresent(paid::add);
        again(Mischief.PAY_TWICE, check -> check.paid > 0, true).ifPresent(paid::add);
        tell(paid);
    }

    private boolean isDue(Books.Check check) {
        return check.told && !check.voided && check.paid == 0 && check.due > 0 && check.due <= books.days;
    }

    private long due() {
        return books.checks.values().stream().filter(this::isDue).count();
    }

    /** Pays a check that should not be paid; what is its own mistake the bank puts right by itself. */
    private Optional<Agreement.Moved> again(Mischief what, Predicate<Books.Check> which, boolean putRight) {
        Optional<Map.Entry<Long, Books.Check>> one = books.checks.entrySet().stream()
                .filter(entry -> which.test(entry.getValue()))
                .max(Comparator.comparing(entry -> entry.getValue().paid * 1_000_000_000L + entry.getKey()));
        if (!ordered(what, one.isPresent())) {
            return Optional.empty();
        }
        Books.Check check = one.orElseThrow().getValue();
        if (putRight) {
            books.faults.add(new Books.Fault(one.get().getKey(), check.minor, books.days + PUT_RIGHT_AFTER));
        }
        return Optional.of(pay(one.get().getKey(), check, check.minor));
    }

    private Agreement.Moved pay(long number, Books.Check check, long minor) {
        check.paid = books.days;
        check.paidMinor = minor;
        return move(number, -minor, "Check paid");
    }

    private Agreement.Moved move(long check, long minor, String text) {
        Agreement.Moved moved = new Agreement.Moved(day, check, minor, text);
        books.moved.add(moved);
        return moved;
    }

    /** The last two different figures before the decimals change places, so that it still looks like an amount. */
    private static long misread(long minor) {
        char[] figures = String.valueOf(minor).toCharArray();
        for (int i = figures.length - 1; i > 0; i--) {
            if (figures[i] != figures[i - 1] && !(i == 1 && figures[i] == '0')) {
                char kept = figures[i];
                figures[i] = figures[i - 1];
                figures[i - 1] = kept;
                return Long.parseLong(new String(figures));
            }
        }
        return minor * 10;
    }

    private void tell(List<Agreement.Moved> paid) {
        List<Agreement.Moved> moved = books.moved.stream()
                .map(one -> one.day().isAfter(books.until)
                        ? one
                        : new Agreement.Moved(books.until.plusDays(1), one.check(), one.minor(), one.text()))
                .sorted(Comparator.comparing(Agreement.Moved::day))
                .toList();
        long opening = books.balanceMinor;
        long closing =
                opening + moved.stream().mapToLong(Agreement.Moved::minor).sum();
        books.statement++;
        BankPaper paper = new BankPaper(books.accountNumber, books.currency, books.decimals);
        BankPaper.Statement of =
                new BankPaper.Statement(books.statement, books.until.plusDays(1), day, opening, closing, moved);
        boolean columns = books.writes == PracticeBank.Writes.COLUMNS_AND_CAMT;
        String list = "paid-" + day + (columns ? ".txt" : ".csv");
        String statement = "statement-" + day + (columns ? ".xml" : ".csv");
        byte[] listed = columns ? paper.columns(day, paid) : paper.commas(paid);
        byte[] stated = columns ? paper.camt(of) : paper.semicolons(of);
        books.moved.clear();
        books.balanceMinor = closing;
        books.until = day;
        release();
        boolean late = ordered(Mischief.SEND_LATE);
        if (!paid.isEmpty()) {
            send(list, listed, late);
            if (ordered(Mischief.SEND_TWICE, !late)) {
                papers.put("paid-" + day + "-copy" + (columns ? ".txt" : ".csv"), listed);
            }
        }
        if (!late && ordered(Mischief.SKIP_STATEMENT)) {
            books.held.put(statement, new Books.Held(stated, 0, true));
            did.add("Left out statement " + books.statement + ".");
        } else if (!late && ordered(Mischief.CUT_FILE)) {
            papers.put(statement, java.util.Arrays.copyOf(stated, stated.length * 3 / 5));
            books.held.put(statement, new Books.Held(stated, books.days + 1, false));
            did.add("Sent statement " + books.statement + ", which was cut off on its way.");
        } else {
            send(statement, stated, late);
        }
        did.add(paid.size() + (paid.size() == 1 ? " check" : " checks") + " paid.");
    }

    private void send(String name, byte[] content, boolean late) {
        if (late) {
            books.held.put(name, new Books.Held(content, books.days + 1, false));
            did.add("Kept " + name + " until tomorrow.");
        } else {
            papers.put(name, content);
        }
    }

    private void release() {
        books.held.entrySet().removeIf(entry -> {
            boolean goes = !entry.getValue().asked() && entry.getValue().onDay() <= books.days;
            if (goes) {
                papers.put(entry.getKey(), entry.getValue().content());
            }
            return goes;
        });
    }

    private boolean ordered(Mischief what) {
        return ordered(what, true);
    }

    /** Whether it was ordered and can be done now; it is done once. */
    private boolean ordered(Mischief what, boolean possible) {
        return possible && books.ordered.remove(what);
    }

    private static String hash(byte[] content) {
        try {
            return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(content));
        } catch (NoSuchAlgorithmException everyPlatformHasIt) {
            throw new IllegalStateException(everyPlatformHasIt);
        }
    }

    /** What the bank says of a file: taken but for some checks, or refused. */
    record Answer(Optional<String> refused, List<Refused> checks) {
        record Refused(long number, String why) {}

        byte[] written(String name) {
            StringBuilder text = new StringBuilder();
            text.append("ANSWER;").append(name).append(refused.isEmpty() ? ";TAKEN;" : ";REFUSED;");
            text.append(refused.map(Answer::plain).orElse("")).append("\r\n");
            for (Refused one : checks) {
                text.append("CHECK;")
                        .append(one.number())
                        .append(';')
                        .append(plain(one.why()))
                        .append("\r\n");
            }
            return text.toString().getBytes(StandardCharsets.UTF_8);
        }

        private static String plain(String sentence) {
            return sentence.replace(';', ',').replace('"', '\'');
        }
    }

    /** What the company decided of a check: pay or return. */
    record Decided(long number, boolean pays) {
        /** Lines such as {@code DECISION;41237;1250.00;RETURN;…}, whatever else stands in them. */
        static List<Decided> read(byte[] content) {
            return new String(content, StandardCharsets.UTF_8)
                    .lines()
                    .map(line -> line.split(";"))
                    .filter(cells -> cells.length >= 4 && cells[0].equals("DECISION"))
                    .map(cells -> new Decided(Long.parseLong(cells[1].replaceAll("\\D", "")), cells[3].equals("PAY")))
                    .toList();
        }
    }
}
