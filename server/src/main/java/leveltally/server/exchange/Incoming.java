package leveltally.server.exchange;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.sql.Timestamp;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.zip.GZIPInputStream;
import leveltally.core.Refusal;
import leveltally.core.bankfiles.FileAnswer;
import leveltally.core.bankfiles.Layout;
import leveltally.core.bankfiles.RecordReader;
import leveltally.core.exchange.StandardFile;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.audit.AuditTrail;
import leveltally.server.bankfiles.BankAnswers;
import leveltally.server.bankfiles.BankFiles;
import leveltally.server.bankfiles.KeptLayouts;
import leveltally.server.clearing.BankReading;
import leveltally.server.clearing.NoticeFiles;
import leveltally.server.ledger.BankAccounts;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;

/** What came from the bank: each file is read as what its name says it is, whole or not at all, or set aside for a reason. */
@Service
public class Incoming {
    private static final Logger LOG = LoggerFactory.getLogger(Incoming.class);
    private static final String DOES_NOT_FOLLOW = "statement-does-not-follow";
    private static final String DONE = "incoming-done";
    private static final int LONGEST_SAID = 600;
    private static final int PAGE = 200;

    /** Refusals that say that nothing is lost by passing over the file. */
    private static final List<String> TOLD_BEFORE = List.of("read-already", "answered-already");

    private final JdbcClient jdbc;
    private final BankAccounts accounts;
    private final Channels channels;
    private final KeptLayouts layouts;
    private final BankReading reading;
    private final BankAnswers answers;
    private final NoticeFiles notices;
    private final Outgoing outgoing;
    private final AuditTrail audit;
    private final TransactionTemplate whole;

    Incoming(
            JdbcClient jdbc,
            BankAccounts accounts,
            Channels channels,
            KeptLayouts layouts,
            BankReading reading,
            BankAnswers answers,
            NoticeFiles notices,
            Outgoing outgoing,
            AuditTrail audit,
            TransactionTemplate whole) {
        this.jdbc = jdbc;
        this.accounts = accounts;
        this.channels = channels;
        this.layouts = layouts;
        this.reading = reading;
        this.answers = answers;
        this.notices = notices;
        this.outgoing = outgoing;
        this.audit = audit;
        this.whole = whole;
    }

    /**
     * A file that came.
     *
     * @param is what its name says it is; empty where no rule fits
     * @param said why it could not be read, what it said, or why it is not read
     * @param gap it is read only for a reason, because it does not follow
     */
    public record IncomingView(
            long id,
            String name,
            long bytes,
            Instant fetchedAt,
            String is,
            String state,
            String said,
            boolean gap,
            @Nullable String doneBy) {}

    /** What became of one file. */
    public record IncomingRead(String name, boolean read, String said) {}

    private record Came(long id, BankAccountId account, String name, String state) {}

    /**
     * A page of those of an account, the newest first; those that wait before all others.
     *
     * @param after the last one of the page before; null for the first
     */
    @Transactional(readOnly = true)
    public List<IncomingView> of(Actor by, BankAccountId account, @Nullable Long after) {
        by.mayDo(Deed.READ);
        List<Channel.Rule> rules = rules(account);
        return jdbc.sql(
                        """
                        SELECT i.id, i.file_name, i.bytes, i.fetched_at, i.state, i.said, i.gap, p.name FROM bank_incoming i
                        LEFT JOIN person p ON p.id = i.done_by WHERE i.bank_account_id = :account AND %s
                        ORDER BY i.state = 'WAITING' DESC, i.id DESC LIMIT :most
                        """.formatted(
                                        after == null
                                                ? "TRUE"
                                                : "(i.state = 'WAITING', i.id) < (SELECT state = 'WAITING', id FROM bank_incoming WHERE id = :after)"))
                .param("account", account.value())
                .param("after", after)
                .param("most", PAGE)
                .query((r, n) -> new IncomingView(
                        r.getLong("id"),
                        r.getString("file_name"),
                        r.getLong("bytes"),
                        r.getTimestamp("fetched_at").toInstant(),
                        rule(rules, r.getString("file_name"))
                                .map(rule -> rule.layout() == null ? "camt.053" : rule.layout())
                                .orElse(""),
                        r.getString("state"),
                        r.getString("said"),
                        r.getBoolean("gap"),
                        r.getString("name")))
                .list();
    }

    int waiting(BankAccountId account) {
        return jdbc.sql("SELECT COUNT(*) FROM bank_incoming WHERE bank_account_id = ? AND state = 'WAITING'")
                .param(account.value())
                .query(Integer.class)
                .single();
    }

    private List<Channel.Rule> rules(BankAccountId account) {
        return channels.inUse(account).map(Channel::rules).orElse(List.of());
    }

    private static Optional<Channel.Rule> rule(List<Channel.Rule> rules, String name) {
        return rules.stream().filter(rule -> rule.pattern().matches(name)).findFirst();
    }

    /** Reads whatever waits, answers first, then lists, then statements, each by itself. */
    public List<IncomingRead> readAll(Actor by, BankAccountId account) {
        by.mayDo(Deed.RECORD_CLEARING);
        List<Channel.Rule> rules = rules(account);
        List<Came> waiting = jdbc.sql("SELECT id, bank_account_id, file_name, state FROM bank_incoming"
                        + " WHERE bank_account_id = ? AND state = 'WAITING' ORDER BY id LIMIT 500")
                .param(account.value())
                .query((r, n) -> came(r))
                .list();
        Map<String, KeptLayouts.ReadingLayout> newest = newest();
        List<IncomingRead> done = new ArrayList<>();
        waiting.stream()
                .sorted(Comparator.comparingInt((Came one) -> turn(rules, newest, one.name()))
                        .thenComparing(Came::name))
                .forEach(one -> readOne(by, one).ifPresent(done::add));
        return done;
    }

    /** Empty where somebody else read it meanwhile. */
    private Optional<IncomingRead> readOne(Actor by, Came one) {
        try {
            return Optional.of(read(by, one.id(), ""));
        } catch (Refusal refused) {
            if (refused.code().equals(DONE)) {
                return Optional.empty();
            }
            throw refused;
        } catch (RuntimeException broken) {
            // one that breaks holds up none of the others
            LOG.warn("file {} of the bank was not read", one.id(), broken);
            return Optional.of(new IncomingRead(
                    one.name(),
                    false,
                    "It was not read, something broke on our side; it waits. Try it again by itself."));
        }
    }

    private static int turn(List<Channel.Rule> rules, Map<String, KeptLayouts.ReadingLayout> newest, String name) {
        Optional<Channel.Rule> rule = rule(rules, name);
        Optional<StandardFile> standard = rule.flatMap(Channel.Rule::standard);
        if (standard.filter(StandardFile::isOfPayments).isPresent()) {
            return standard.get() == StandardFile.STATUS_REPORT ? 0 : 1;
        }
        String layout = rule.map(Channel.Rule::layout).orElse(null);
        KeptLayouts.ReadingLayout kept = layout == null ? null : newest.get(layout);
        Layout.Use use = kept == null ? Layout.Use.STATEMENT : kept.use();
        return List.of(Layout.Use.ANSWER, Layout.Use.PAID_CHECKS, Layout.Use.STATEMENT)
                .indexOf(use);
    }

    private Map<String, KeptLayouts.ReadingLayout> newest() {
        return layouts.toRead().stream()
                .collect(java.util.stream.Collectors.toMap(KeptLayouts.ReadingLayout::name, one -> one));
    }

    /**
     * Reads one of them.
     *
     * @param gap why it is read although it does not follow the statement before; empty where nobody said
     */
    public IncomingRead read(Actor by, long id, String gap) {
        by.mayDo(Deed.RECORD_CLEARING);
        try {
            return ofPayments(by, id)
                    .orElseGet(() -> java.util.Objects.requireNonNull(whole.execute(status -> take(by, id, gap))));
        } catch (Refusal refused) {
            if (refused.code().equals(DONE)) {
                throw refused;
            }
            return java.util.Objects.requireNonNull(whole.execute(status -> stays(by, id, refused)));
        }
    }

    /**
     * What speaks of payments is written down first, then dealt with one by one, each in a transaction of its own; empty for
     * every other file. What was told before is passed over when it is read again after a break.
     */
    private Optional<IncomingRead> ofPayments(Actor by, long id) {
        Came one = java.util.Objects.requireNonNull(whole.execute(status -> locked(id)));
        if (rule(rules(one.account()), one.name())
                .filter(Channel.Rule::isOfPayments)
                .isEmpty()) {
            return Optional.empty();
        }
        String said = notices.read(by, one.account(), content(id));
        whole.executeWithoutResult(status -> {
            locked(id);
            done(by, id, "READ", said);
        });
        return Optional.of(new IncomingRead(one.name(), true, said));
    }

    private byte[] content(long id) {
        return jdbc.sql("SELECT content FROM bank_incoming WHERE id = ?")
                .param(id)
                .query((r, n) -> unzipped(r.getBytes("content")))
                .single();
    }

    private IncomingRead take(Actor by, long id, String gap) {
        Came one = locked(id);
        byte[] content = content(id);
        Channel.Rule rule = rule(rules(one.account()), one.name())
                .orElseThrow(() -> Refusal.conflict(
                        "no-rule",
                        "Nobody said what files called " + one.name()
                                + " are. An administrator says so on the account's page, or set it aside."));
        KeptLayouts.ReadingLayout layout = rule.layout() == null ? null : newest().get(rule.layout());
        String said = layout != null && layout.use() == Layout.Use.ANSWER
                ? answer(by, one, layout.id(), content)
                : report(by, one, layout, content, gap);
        done(by, id, "READ", said);
        return new IncomingRead(one.name(), true, said);
    }

    private String report(Actor by, Came one, KeptLayouts.@Nullable ReadingLayout layout, byte[] content, String gap) {
        BankReading.BankRead read = reading.read(
                by, new BankReading.Sent(one.account(), one.name(), content, layout == null ? null : layout.id(), gap));
        return counted(read.movements(), "movement") + ": " + counted(read.cleared(), "check") + " cleared, "
                + read.again() + " told before, " + read.stay() + (read.stay() == 1 ? " waits" : " wait")
                + " for an answer.";
    }

    private String answer(Actor by, Came one, long layout, byte[] content) {
        FileAnswer answer = FileAnswer.of(RecordReader.read(
                layouts.toRead(layout).layout(), accounts.get(one.account()).currency(), content));
        BankAnswers.Answered file = answers.answered(
                        one.account(), answer.name(), answer.serial().orElse(null))
                .orElseThrow(() -> Refusal.conflict(
                        "no-such-file",
                        "It answers a file “" + answer.name()
                                + "”, which the bank was never given from here. Set it aside, and ask the bank."));
        if (file.isOtherwise(answer.taken(), answer.refused().isEmpty())) {
            throw Refusal.conflict(
                    "answer-contradicts",
                    "It says that the bank " + took(answer) + ", but somebody recorded otherwise: file " + file.serial()
                            + " is " + file.state().toLowerCase(java.util.Locale.ROOT)
                            + ". Ask the bank, then set this aside.");
        }
        if (answer.taken()) {
            answers.accepted(
                    by,
                    file.id(),
                    answer.note(),
                    answer.refused().stream()
                            .map(check -> new BankAnswers.RefusedItem(check.number(), check.why()))
                            .toList());
        } else {
            answers.refused(by, file.id(), answer.note().isEmpty() ? "the bank does not say why" : answer.note());
        }
        outgoing.heard(file.id(), by.now());
        return "The bank " + (answer.taken() ? "took" : "refused") + " file " + file.serial()
                + (answer.note().isEmpty() ? "" : ": " + answer.note())
                + (answer.refused().isEmpty()
                        ? "."
                        : ", but not " + counted(answer.refused().size(), "check") + ".");
    }

    private static String took(FileAnswer answer) {
        return !answer.taken()
                ? "refused the file"
                : answer.refused().isEmpty()
                        ? "took it"
                        : "did not take " + counted(answer.refused().size(), "check") + " of it";
    }

    /** It waits on, and says why; or is set aside, where all of it was told before. */
    private IncomingRead stays(Actor by, long id, Refusal refused) {
        Came one = locked(id);
        if (TOLD_BEFORE.contains(refused.code())) {
            done(by, id, "SET_ASIDE", refused.sentence());
        } else {
            jdbc.sql("UPDATE bank_incoming SET said = ?, gap = ?, version = version + 1 WHERE id = ?")
                    .params(shortened(refused.sentence()), refused.code().equals(DOES_NOT_FOLLOW), id)
                    .update();
        }
        return new IncomingRead(one.name(), false, refused.sentence());
    }

    /** It is not read, because somebody says so. */
    @Transactional
    public void setAside(Actor by, long id, String why) {
        by.mayDo(Deed.RECORD_CLEARING);
        if (why.isBlank()) {
            throw Refusal.invalidField("reason-missing", "why", "Say why it is not read.");
        }
        Came one = locked(id);
        done(by, id, "SET_ASIDE", why.strip());
        audit.record(
                by,
                "set aside bank's file",
                "bank account " + one.account().value(),
                Map.of("file", one.name(), "why", why.strip()));
    }

    /** Reads anew what was set aside by mistake. */
    @Transactional
    public void takeBack(Actor by, long id) {
        by.mayDo(Deed.RECORD_CLEARING);
        Came one = found(id);
        if (!one.state().equals("SET_ASIDE")) {
            throw Refusal.conflict("not-aside", one.name() + " is not set aside any more. Look again.");
        }
        jdbc.sql("UPDATE bank_incoming SET state = 'WAITING', said = '', gap = FALSE, done_at = NULL, done_by = NULL,"
                        + " version = version + 1 WHERE id = ?")
                .param(id)
                .update();
        audit.record(
                by, "take back bank's file", "bank account " + one.account().value(), Map.of("file", one.name()));
    }

    /** Its bytes as they came. */
    @Transactional(readOnly = true)
    public BankFiles.Content content(Actor by, long id) {
        by.mayDo(Deed.RECORD_CLEARING);
        return jdbc.sql("SELECT file_name, content FROM bank_incoming WHERE id = ?")
                .param(id)
                .query((r, n) -> new BankFiles.Content(r.getString("file_name"), unzipped(r.getBytes("content"))))
                .optional()
                .orElseThrow(() -> Refusal.notFound("no-file", "There is no such file of the bank."));
    }

    private void done(Actor by, long id, String state, String said) {
        jdbc.sql(
                        "UPDATE bank_incoming SET state = ?, said = ?, gap = FALSE, done_at = ?, done_by = ?, version = version + 1"
                                + " WHERE id = ?")
                .params(
                        state,
                        shortened(said),
                        Timestamp.from(by.now()),
                        by.person().value(),
                        id)
                .update();
    }

    private Came found(long id) {
        return jdbc.sql("SELECT id, bank_account_id, file_name, state FROM bank_incoming WHERE id = ? FOR UPDATE")
                .param(id)
                .query((r, n) -> came(r))
                .optional()
                .orElseThrow(() -> Refusal.notFound("no-file", "There is no such file of the bank."));
    }

    /** The account before the file, as everything that reads a bank locks. */
    private Came locked(long id) {
        jdbc.sql("SELECT bank_account_id FROM bank_incoming WHERE id = ?")
                .param(id)
                .query(Long.class)
                .optional()
                .ifPresent(account -> accounts.lock(new BankAccountId(account)));
        Came one = found(id);
        if (!one.state().equals("WAITING")) {
            throw Refusal.conflict(DONE, one.name() + " does not wait any more. Look again.");
        }
        return one;
    }

    private static Came came(java.sql.ResultSet r) throws java.sql.SQLException {
        return new Came(
                r.getLong("id"),
                new BankAccountId(r.getLong("bank_account_id")),
                r.getString("file_name"),
                r.getString("state"));
    }

    private static byte[] unzipped(byte[] packed) {
        try (GZIPInputStream from = new GZIPInputStream(new ByteArrayInputStream(packed))) {
            return from.readAllBytes();
        } catch (IOException broken) {
            throw new UncheckedIOException(broken);
        }
    }

    private static String counted(int many, String what) {
        return many + " " + what + (many == 1 ? "" : "s");
    }

    private static String shortened(String text) {
        return text.length() > LONGEST_SAID ? text.substring(0, LONGEST_SAID) : text;
    }
}
