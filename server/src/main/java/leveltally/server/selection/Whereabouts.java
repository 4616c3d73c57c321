package leveltally.server.selection;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.money.Money;
import leveltally.core.selection.Candidate;
import leveltally.core.selection.Criteria;
import leveltally.core.selection.Decision;
import leveltally.core.selection.LeftOutReason;
import leveltally.core.selection.Marks;
import leveltally.core.selection.Selection;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;

/** Answers “where is 7731?” for any invoice, by entry number or by the vendor's reference, in one line each. */
@Service
class Whereabouts {
    private static final int MOST = 12;

    private final JdbcClient jdbc;
    private final DueLists lists;
    private final CandidateRows rows;

    Whereabouts(JdbcClient jdbc, DueLists lists, CandidateRows rows) {
        this.jdbc = jdbc;
        this.lists = lists;
        this.rows = rows;
    }

    /** Where one invoice stands. */
    enum State {
        TAKEN("taken"),
        LEFT_OUT("left out"),
        NOT_DUE("not due"),
        OUTSIDE("not asked for"),
        SETTLED("settled"),
        HELD("held"),
        RESERVED("reserved"),
        CREDIT("credit");

        private final String words;

        State(String words) {
            this.words = words;
        }

        String words() {
            return words;
        }
    }

    private record Found(
            long id, long vendor, String vendorName, String reference, String kind, Money open, LocalDate dueDate) {}

    List<WhereItIs> of(DueQuestion question, String asked, LocalDate today) {
        String text = asked.strip();
        if (text.isEmpty() || text.length() > 60) {
            throw Refusal.invalidField(
                    "nothing-asked",
                    "text",
                    "Type an entry number or a reference of the vendor, at most 60 characters.");
        }
        List<Found> found = find(text);
        if (found.isEmpty()) {
            return List.of();
        }
        Selection selection = lists.lately(question, today);
        Set<InvoiceId> wanted = found.stream().map(f -> new InvoiceId(f.id())).collect(Collectors.toSet());
        List<WhereItIs> answers = new ArrayList<>();
        Set<Long> answered = new HashSet<>();
        for (Selection.Row row : selection.rows()) {
            if (wanted.contains(row.candidate().invoice().id())) {
                answers.add(listed(row));
                answered.add(row.candidate().invoice().id().value());
            }
        }
        List<InvoiceId> rest =
                wanted.stream().filter(id -> !answered.contains(id.value())).toList();
        for (Candidate candidate : rows.named(rest, 0)) {
            answers.add(notListed(candidate, selection.criteria()));
            answered.add(candidate.invoice().id().value());
        }
        for (Found one : found) {
            if (!answered.contains(one.id())) {
                answers.add(closed(one));
            }
        }
        return answers;
    }

    private List<Found> find(String text) {
        String columns = """
                SELECT i.id, v.id AS vendor_id, v.name, i.reference, i.kind, i.open_minor, i.currency, i.due_date
                FROM invoice i JOIN vendor v ON v.id = i.vendor_id WHERE
                """;
        long entry = text.matches("\\d{1,15}") ? Long.parseLong(text) : -1;
        List<Found> exact = query(columns + " i.id = :entry OR i.reference = :text", text, entry);
        if (!exact.isEmpty()) {
            return exact;
        }
        // a part of a reference: what is open first
        return query(columns + " i.reference LIKE :like", text, entry);
    }

    private List<Found> query(String sql, String text, long entry) {
        String like = "%" + text.replace("\\", "\\\\").replace("%", "\\%").replace("_", "\\_") + "%";
        return jdbc.sql(sql + " ORDER BY i.is_open DESC, i.due_date DESC LIMIT " + MOST)
                .param("entry", entry)
                .param("text", text)
                .param("like", like)
                .query((r, n) -> new Found(
                        r.getLong("id"),
                        r.getLong("vendor_id"),
                        r.getString("name"),
                        r.getString("reference"),
                        r.getString("kind"),
                        Money.ofMinor(r.getLong("open_minor"), r.getString("currency")),
                        r.getObject("due_date", LocalDate.class)))
                .list();
    }

    private static WhereItIs answer(Candidate of, State state, String rest, String wayOut, boolean canTake) {
        return new WhereItIs(
                of.invoice().id().value(),
                of.payee().vendor().value(),
                of.payee().name(),
                of.invoice().reference(),
                state,
                rest,
                wayOut,
                canTake);
    }

    private static WhereItIs listed(Selection.Row row) {
        Candidate of = row.candidate();
        if (row.decision() instanceof Decision.LeftOut out) {
            State state = state(out.reason());
            String why = out.reason().words() + (out.detail().isEmpty() ? "" : ", " + out.detail());
            return answer(
                    of,
                    state,
                    state == State.LEFT_OUT ? ": " + why : ": left out: " + why,
                    out.reason().wayOut(),
                    out.reason().movable());
        }
        Decision.Taken taken = (Decision.Taken) row.decision();
        String saves = taken.payment().discount().isPositive()
                ? ", saving " + taken.payment().discount()
                : "";
        String byHand = taken.byHand() ? " by hand" : "";
        return answer(of, State.TAKEN, byHand + ": pays " + taken.payment().cash() + saves, "", false);
    }

    private static State state(LeftOutReason reason) {
        return switch (reason) {
            case HELD_INVOICE, HELD_VENDOR -> State.HELD;
            case IN_ANOTHER_BATCH -> State.RESERVED;
            default -> State.LEFT_OUT;
        };
    }

    private WhereItIs notListed(Candidate candidate, Criteria criteria) {
        Selection alone = Selection.of(criteria, List.of(candidate), List.of(), Marks.NONE);
        if (alone.rows().get(0).decision() instanceof Decision.LeftOut out
                && out.reason() != LeftOutReason.UNDER_SMALLEST_PAYMENT
                && out.reason() != LeftOutReason.BEYOND_THE_CASH_LINE) {
            return listed(alone.rows().get(0));
        }
        Criteria.NotAsked why = criteria.whyNotAsked(candidate).orElse(new Criteria.NotAsked(false, "not looked at"));
        State state = why.notDue() ? State.NOT_DUE : State.OUTSIDE;
        return answer(candidate, state, ": " + why.detail(), "Take it in by hand, or change the sentence.", true);
    }

    private WhereItIs closed(Found one) {
        boolean credit = one.kind().equals("CREDIT");
        if (one.open().isPositive()) {
            String words = ": a " + (credit ? "credit" : "prepayment") + ", open at " + one.open();
            return new WhereItIs(
                    one.id(),
                    one.vendor(),
                    one.vendorName(),
                    one.reference(),
                    State.CREDIT,
                    words,
                    "Use open credits in the sentence, or apply it on the vendor's page.",
                    false);
        }
        return new WhereItIs(
                one.id(),
                one.vendor(),
                one.vendorName(),
                one.reference(),
                State.SETTLED,
                settledBy(one.id()),
                "",
                false);
    }

    private String settledBy(long invoice) {
        Optional<String> how = jdbc.sql("""
                        SELECT s.ledger_date, n.number, o.reference, s.kind FROM settlement s
                        LEFT JOIN check_number n ON n.live_payment_id = s.payment_id
                        LEFT JOIN credit_offset o ON o.id = s.offset_id
                        WHERE s.invoice_id = :invoice AND s.reverses_id IS NULL
                        ORDER BY s.ledger_date DESC, s.id DESC LIMIT 1
                        """)
                .param("invoice", invoice)
                .query((r, n) -> {
                    String by = r.getString("number") != null
                            ? "by check " + r.getString("number")
                            : r.getString("reference") != null ? "by offset " + r.getString("reference") : "";
                    return (by.isEmpty() ? "" : " " + by) + " on "
                            + Dates.inWords(r.getObject("ledger_date", LocalDate.class));
                })
                .optional();
        return how.orElse("");
    }
}
