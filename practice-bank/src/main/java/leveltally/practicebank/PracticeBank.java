package leveltally.practicebank;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.AtomicMoveNotSupportedException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import tools.jackson.databind.json.JsonMapper;

/**
 * The bank: a folder for each account with what comes in, what goes out, what was agreed on and its books. A day that is cut
 * off in the middle is done again from the books of the day before.
 */
public final class PracticeBank {
    private static final JsonMapper JSON = new JsonMapper();
    private static final int SHOWN = 4;

    private final Path home;

    /** @param home its own data */
    public PracticeBank(Path home) {
        this.home = home;
    }

    /** How the bank tells what it paid, and what moved. */
    public enum Writes {
        COLUMNS_AND_CAMT("fixed columns, and statements by the standard"),
        LISTS("lists with commas and semicolons");

        private final String words;

        Writes(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** What a day was at the bank, in its own words. */
    public record Day(LocalDate day, List<String> did) {
        public Day {
            did = List.copyOf(did);
        }
    }

    /** An account as the bank's own people see it. */
    public record Look(
            LocalDate until,
            long balanceMinor,
            long statement,
            int outstanding,
            Writes writes,
            List<Mischief> ordered,
            List<String> held) {
        public Look {
            ordered = List.copyOf(ordered);
            held = List.copyOf(held);
        }
    }

    /** The folder in which its files come and go, below the root of its port; it shows no more of the number than its end. */
    public static String folder(String accountNumber) {
        String digits = accountNumber.replaceAll("\\D", "");
        return "account-" + digits.substring(Math.max(0, digits.length() - SHOWN));
    }

    Path desk() {
        return home.resolve("desk");
    }

    private Path desk(String accountNumber) {
        return desk().resolve(folder(accountNumber));
    }

    /** A folder below the root of its port is there, also before an account begins. */
    public void keep(String folder) {
        Path path = desk().resolve(folder.replaceFirst("^/+", "")).normalize();
        if (!path.startsWith(desk())) {
            throw new IllegalArgumentException("folder: " + folder + " does not lie at the bank");
        }
        try {
            Files.createDirectories(path);
        } catch (IOException unwritable) {
            throw new UncheckedIOException(unwritable);
        }
    }

    private Path books(String accountNumber) {
        return home.resolve("books").resolve(folder(accountNumber) + ".json");
    }

    public synchronized boolean has(String accountNumber) {
        return Files.exists(books(accountNumber));
    }

    /** Begins an account; one it has stays as it is. */
    public synchronized void open(Agreement of) {
        if (has(of.accountNumber())) {
            return;
        }
        Books books = new Books();
        books.accountNumber = of.accountNumber();
        books.currency = of.currency();
        books.decimals = of.decimals();
        books.balanceMinor = of.balanceMinor();
        books.statement = of.statement();
        books.until = of.until();
        books.moved.addAll(of.untold());
        of.known().forEach(books::know);
        keep(books);
    }

    private Path agreed(String accountNumber) {
        return home.resolve("agreed").resolve(folder(accountNumber) + ".layout.json");
    }

    /** What was agreed on of the company's files: their description. */
    public synchronized void agree(String accountNumber, String description) {
        put(agreed(accountNumber), description.getBytes(StandardCharsets.UTF_8));
    }

    /** How the bank's own files are written from its next day on. */
    public synchronized void write(String accountNumber, Writes writes) {
        Books books = kept(accountNumber);
        books.writes = writes;
        keep(books);
    }

    /** Checks that people hold of an account whose company tells the bank of none: it pays what they bring. */
    public synchronized void handedOut(String accountNumber, List<Agreement.Known> checks) {
        Books books = kept(accountNumber);
        checks.forEach(books::know);
        keep(books);
    }

    /** Others bring money to the account or take it, each once by its key. */
    public synchronized void bring(String accountNumber, String key, Agreement.Moved moved) {
        Books books = kept(accountNumber);
        if (!books.brought.contains(key)) {
            books.brought.add(key);
            books.moved.add(moved);
            keep(books);
        }
    }

    /** Tells the bank to do something wrong, or not to any more. */
    public synchronized void order(String accountNumber, Mischief what, boolean wanted) {
        Books books = kept(accountNumber);
        books.ordered.remove(what);
        if (wanted) {
            books.ordered.add(what);
        }
        keep(books);
    }

    /** Asks for the papers that did not come: they are sent at once. */
    public synchronized List<String> ask(String accountNumber) {
        Books books = kept(accountNumber);
        List<String> names = List.copyOf(books.held.keySet());
        books.held.forEach(
                (name, paper) -> put(desk(accountNumber).resolve("out").resolve(name), paper.content()));
        books.held.clear();
        keep(books);
        return names;
    }

    public synchronized Look look(String accountNumber) {
        Books books = kept(accountNumber);
        return new Look(
                books.until,
                books.balanceMinor,
                books.statement,
                (int) books.checks.values().stream()
                        .filter(check -> check.told && !check.voided && check.paid == 0)
                        .count(),
                books.writes,
                books.ordered,
                List.copyOf(books.held.keySet()));
    }

    /** A day passes: files are taken and answered, checks come in and are paid, list and statement are written. */
    public synchronized Day letPass(String accountNumber, LocalDate day) {
        Books books = kept(accountNumber);
        if (!day.isAfter(books.until)) {
            return new Day(books.until, List.of("The bank had this day already."));
        }
        Path agreed = agreed(accountNumber);
        BankDay work = new BankDay(
                books,
                day,
                Files.exists(agreed)
                        ? Optional.of(Specification.of(new String(bytes(agreed), StandardCharsets.UTF_8)))
                        : Optional.empty());
        List<Path> come = come(accountNumber);
        for (Path file : come) {
            work.take(String.valueOf(file.getFileName()), bytes(file));
        }
        work.payAndTell();
        // what it tells goes out first and is the same when the day is done again; its books say that the day is over
        work.papers()
                .forEach((name, content) ->
                        put(desk(accountNumber).resolve("out").resolve(name), content));
        keep(books);
        for (Path file : come) {
            move(file, home.resolve("taken").resolve(folder(accountNumber)).resolve(day + "-" + file.getFileName()));
        }
        return new Day(day, work.did());
    }

    private List<Path> come(String accountNumber) {
        Path in = desk(accountNumber).resolve("in");
        if (!Files.exists(in)) {
            return List.of();
        }
        try (Stream<Path> files = Files.list(in)) {
            // what is still being sent has another ending
            return files.filter(file -> !file.toString().endsWith(".part"))
                    .sorted()
                    .toList();
        } catch (IOException unreadable) {
            throw new UncheckedIOException(unreadable);
        }
    }

    private void keep(Books books) {
        try {
            Files.createDirectories(desk(books.accountNumber).resolve("in"));
            Files.createDirectories(desk(books.accountNumber).resolve("out"));
        } catch (IOException unwritable) {
            throw new UncheckedIOException(unwritable);
        }
        put(books(books.accountNumber), JSON.writeValueAsBytes(books));
    }

    private Books kept(String accountNumber) {
        if (!has(accountNumber)) {
            throw new IllegalStateException("the bank has no account " + accountNumber);
        }
        return JSON.readValue(bytes(books(accountNumber)), Books.class);
    }

    private static byte[] bytes(Path file) {
        try {
            return Files.readAllBytes(file);
        } catch (IOException unreadable) {
            throw new UncheckedIOException(unreadable);
        }
    }

    /** Whole or not at all. */
    private static void put(Path file, byte[] content) {
        try {
            Files.createDirectories(file.getParent());
            Path part = file.resolveSibling("." + file.getFileName() + ".part");
            Files.write(part, content);
            move(part, file);
        } catch (IOException unwritable) {
            throw new UncheckedIOException(unwritable);
        }
    }

    private static void move(Path from, Path to) {
        try {
            Files.createDirectories(to.getParent());
            try {
                Files.move(from, to, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
            } catch (AtomicMoveNotSupportedException elsewhere) {
                Files.move(from, to, StandardCopyOption.REPLACE_EXISTING);
            }
        } catch (IOException unwritable) {
            throw new UncheckedIOException(unwritable);
        }
    }
}
