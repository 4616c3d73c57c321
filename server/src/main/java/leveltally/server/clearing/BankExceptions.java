package leveltally.server.clearing;

import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import leveltally.core.clearing.Answer;
import leveltally.core.clearing.Clearing;
import leveltally.core.clearing.Consequence;
import leveltally.core.clearing.DecisionHour;
import leveltally.core.clearing.ExceptionKind;
import leveltally.core.clearing.Presented;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.frame.MoneyView;
import leveltally.server.ledger.Accounts;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What the bank moved and nobody has answered, with what it seems to be about. */
@Service
public class BankExceptions {
    private static final int MOST = 20_000;
    private static final int SHOWN = 1_000;

    private final BankAccounts accounts;
    private final MovementRows rows;
    private final Clearings clearings;
    private final BankEntries entries;
    private final Accounts ledger;
    private final Decisions decisions;
    private final Matching matching;
    private final MovementHistory history;
    private final JdbcClient jdbc;

    BankExceptions(
            BankAccounts accounts,
            MovementRows rows,
            Clearings clearings,
            BankEntries entries,
            Accounts ledger,
            Decisions decisions,
            Matching matching,
            MovementHistory history,
            JdbcClient jdbc) {
        this.history = history;
        this.accounts = accounts;
        this.rows = rows;
        this.clearings = clearings;
        this.entries = entries;
        this.ledger = ledger;
        this.decisions = decisions;
        this.matching = matching;
        this.jdbc = jdbc;
    }

    /**
     * An answer there is, the proposed one first.
     *
     * @param then what it does
     */
    public record AnswerChoice(Answer answer, String words, String then, boolean needsReason, boolean entered) {}

    /**
     * A movement that waits for an answer.
     *
     * @param check the one it seems to be about; empty for none
     * @param checkAmount null for none
     * @param decideBy until when the bank is told to return it; null where its account has no such hour, or it is not asked
     * @param words by which the proposed account is remembered; empty for none
     */
    public record ExceptionView(
            long id,
            long version,
            LocalDate day,
            MoneyView amount,
            boolean in,
            String number,
            String text,
            String reference,
            String toldBy,
            ExceptionKind kind,
            String kindWords,
            String sentence,
            String check,
            String payee,
            @Nullable MoneyView checkAmount,
            @Nullable Instant decideBy,
            boolean late,
            @Nullable Long proposedAccount,
            String proposedAccountName,
            String words,
            List<AnswerChoice> answers) {}

    /** How many there are of a kind, and what they come to; what went out and what came in are never added. */
    public record ExceptionCount(ExceptionKind kind, String words, int count, MoneyView out, MoneyView in) {}

    /**
     * @param more how many of the chosen kind are not shown
     */
    public record ExceptionsView(
            List<ExceptionCount> kinds, int count, List<ExceptionView> shown, int more, boolean hasHour) {}

    /** @param only of one kind; null for all */
    @Transactional(readOnly = true)
    public ExceptionsView of(Actor by, BankAccountId id, @Nullable ExceptionKind only) {
        by.mayDo(Deed.READ);
        BankAccount account = accounts.get(id);
        List<MovementRows.Told> open = rows.open(id, MOST);
        Map<Long, Clearing> looked = clearings.look(id, open);
        Optional<DecisionHour> hour = decisions.hour(id);
        List<BankEntries.Remembered> remembered = entries.remembered(account);
        Map<Long, String> names = ledger.names();
        Map<ExceptionKind, Sum> kinds = new EnumMap<>(ExceptionKind.class);
        List<ExceptionView> shown = new ArrayList<>();
        int more = 0;
        for (MovementRows.Told one : open) {
            ExceptionView view = view(by, one, looked.get(one.id()), hour, remembered, names);
            kinds.computeIfAbsent(view.kind(), none -> new Sum(account))
                    .add(one.says().amount());
            if (only != null && view.kind() != only) {
                continue;
            }
            if (shown.size() < SHOWN) {
                shown.add(view);
            } else {
                more++;
            }
        }
        List<ExceptionCount> counts = new ArrayList<>();
        kinds.forEach((kind, sum) -> counts.add(
                new ExceptionCount(kind, kind.words(), sum.count, MoneyView.of(sum.out), MoneyView.of(sum.in))));
        return new ExceptionsView(counts, open.size(), shown, more, hour.isPresent());
    }

    /** What the movements of a kind come to. */
    private static final class Sum {
        private int count;
        private Money out;
        private Money in;

        Sum(BankAccount account) {
            out = Money.zero(account.currency());
            in = out;
        }

        void add(Money amount) {
            count++;
            in = amount.isPositive() ? in.plus(amount) : in;
            out = amount.isPositive() ? out : out.minus(amount);
        }
    }

    private static ExceptionView view(
            Actor by,
            MovementRows.Told one,
            @Nullable Clearing looked,
            Optional<DecisionHour> hour,
            List<BankEntries.Remembered> remembered,
            Map<Long, String> names) {
        Clearing.Stands stands = looked instanceof Clearing.Stands found
                ? found
                : new Clearing.Stands(
                        ExceptionKind.AGREES,
                        looked instanceof Clearing.Clears clears ? clears.check() : null,
                        "It agrees with its check by now. Clear what agrees.");
        Presented check = stands.check();
        Presented.Carried carried = check == null ? null : check.check();
        Instant until =
                stands.kind().isDecided() ? hour.map(of -> of.of(one.readAt())).orElse(null) : null;
        Optional<BankEntries.Remembered> proposed = BankEntries.proposed(remembered, one.says());
        Money amount = one.says().amount();
        return new ExceptionView(
                one.id(),
                one.version(),
                one.says().day(),
                MoneyView.of(amount.isNegative() ? amount.negated() : amount),
                amount.isPositive(),
                one.says().number(),
                one.says().text(),
                one.says().reference(),
                one.by().words(),
                stands.kind(),
                stands.kind().words(),
                stands.sentence(),
                check == null ? "" : check.prefix() + check.number(),
                carried == null ? "" : carried.payee(),
                carried == null ? null : MoneyView.of(carried.amount()),
                until,
                until != null && by.now().isAfter(until),
                proposed.map(found -> found.account().value()).orElse(null),
                proposed.map(found -> names.getOrDefault(found.account().value(), ""))
                        .orElse(""),
                proposed.map(BankEntries.Remembered::words).orElse(""),
                stands.kind().answers().stream()
                        .map(answer -> new AnswerChoice(
                                answer,
                                answer.words(),
                                Consequence.of(answer, one.says(), stands),
                                answer.needsReason(),
                                answer.isEntered()))
                        .toList());
    }

    /** Something a movement can be matched with. */
    public record CandidateView(MatchKind kind, long of, LocalDate on, String text, MoneyView amount, boolean same) {}

    /** What the ledger, a list or the bank's debt has that a movement can be; what comes to the same first. */
    @Transactional(readOnly = true)
    public List<CandidateView> candidates(Actor by, BankAccountId id, long movement) {
        by.mayDo(Deed.READ);
        BankAccount account = accounts.get(id);
        return rows.one(id, movement)
                .map(told -> matching.of(account, told).stream()
                        .map(one -> new CandidateView(
                                one.kind(),
                                one.of(),
                                one.on(),
                                one.text(),
                                MoneyView.of(
                                        one.amount().isNegative() ? one.amount().negated() : one.amount()),
                                one.amount().equals(told.says().amount())))
                        .toList())
                .orElse(List.of());
    }

    /**
     * What a bank told in one file.
     *
     * @param opening null for a list
     * @param open how many of its movements nobody has answered
     */
    public record BankReportView(
            long id,
            String kind,
            String format,
            String fileName,
            String number,
            LocalDate from,
            LocalDate to,
            @Nullable MoneyView opening,
            @Nullable MoneyView closing,
            int movements,
            MoneyView out,
            MoneyView in,
            String gap,
            int open,
            Instant readAt,
            String readBy) {}

    /** What was read of an account, the newest first. */
    @Transactional(readOnly = true)
    public List<BankReportView> reports(Actor by, BankAccountId id) {
        by.mayDo(Deed.READ);
        return jdbc.sql("""
                        SELECT r.*, p.name AS read_by_name,
                          (SELECT COUNT(*) FROM bank_movement m WHERE m.report_id = r.id AND m.is_open = 1) AS open_movements
                        FROM (SELECT id, bank_account_id, kind, format, file_name, number, from_day, to_day, currency, opening_minor,
                            closing_minor, movements, out_minor, in_minor, gap, read_at, read_by FROM bank_report
                          WHERE bank_account_id = ? AND kind <> 'BY_HAND' ORDER BY read_at DESC, id DESC LIMIT 200) r
                        JOIN person p ON p.id = r.read_by ORDER BY r.read_at DESC, r.id DESC
                        """)
                .param(id.value())
                .query((r, n) -> {
                    String currency = r.getString("currency");
                    Long opening = r.getObject("opening_minor", Long.class);
                    Long closing = r.getObject("closing_minor", Long.class);
                    return new BankReportView(
                            r.getLong("id"),
                            TheBankSays.valueOf(r.getString("kind")).words(),
                            r.getString("format"),
                            r.getString("file_name"),
                            r.getString("number"),
                            r.getObject("from_day", LocalDate.class),
                            r.getObject("to_day", LocalDate.class),
                            opening == null ? null : MoneyView.of(opening, currency),
                            closing == null ? null : MoneyView.of(closing, currency),
                            r.getInt("movements"),
                            MoneyView.of(r.getLong("out_minor"), currency),
                            MoneyView.of(r.getLong("in_minor"), currency),
                            r.getString("gap"),
                            r.getInt("open_movements"),
                            r.getTimestamp("read_at").toInstant(),
                            r.getString("read_by_name"));
                })
                .list();
    }

    /**
     * What stands for a movement, or stood for it.
     *
     * @param undone when and why it was taken back; empty while it stands
     */
    public record BankMatchView(
            MatchKind kind,
            String words,
            MoneyView amount,
            LocalDate on,
            String why,
            String by,
            Instant at,
            String undone) {}

    /**
     * @param open what nothing stands for
     * @param canBeTakenBack something stands for it, or it was typed here
     */
    public record BankMovementView(
            long id,
            long version,
            LocalDate day,
            MoneyView amount,
            boolean in,
            String number,
            String text,
            String reference,
            String toldBy,
            String file,
            MoneyView open,
            boolean answered,
            boolean canBeTakenBack,
            List<BankMatchView> matches) {}

    public record BankMovementsView(List<BankMovementView> movements, boolean more) {}

    /**
     * Movements of a report in its order, or of the account or a number, the newest first.
     *
     * @param after the last movement of the page before
     */
    @Transactional(readOnly = true)
    public BankMovementsView movements(
            Actor by, BankAccountId id, @Nullable Long report, @Nullable String number, @Nullable Long after) {
        by.mayDo(Deed.READ);
        return history.of(id, report, number, after);
    }
}
