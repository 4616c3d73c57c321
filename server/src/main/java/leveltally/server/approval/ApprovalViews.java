package leveltally.server.approval;

import java.sql.ResultSet;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.Currency;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import leveltally.core.Refusal;
import leveltally.core.approval.Approver;
import leveltally.core.approval.Attention;
import leveltally.core.approval.ClaimDigest;
import leveltally.core.approval.Comparison;
import leveltally.core.approval.Progress;
import leveltally.core.approval.Step;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.batches.Claim;
import leveltally.core.batches.ClaimId;
import leveltally.core.marks.MarkKind;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.people.PersonId;
import leveltally.core.people.Role;
import leveltally.server.batches.Batch;
import leveltally.server.batches.Batches;
import leveltally.server.batches.ClaimRows;
import leveltally.server.batches.Obstacles;
import leveltally.server.frame.MoneyView;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.marks.FactView;
import leveltally.server.marks.MarkAnswers;
import leveltally.server.marks.MarkView;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** What an approver sees; a fixed number of statements, whatever the size of a batch and however many wait. */
@Component
class ApprovalViews {
    private static final int MOST_WAITING = 300;

    private final JdbcClient jdbc;
    private final JsonMapper json;
    private final Batches batches;
    private final Obstacles obstacles;
    private final ClaimRows claimRows;
    private final BankAccounts accounts;
    private final Rounds rounds;
    private final Deputies deputies;
    private final Approvals approvals;
    private final MarkAnswers answers;

    ApprovalViews(
            JdbcClient jdbc,
            JsonMapper json,
            Batches batches,
            Obstacles obstacles,
            ClaimRows claimRows,
            BankAccounts accounts,
            Rounds rounds,
            Deputies deputies,
            Approvals approvals,
            MarkAnswers answers) {
        this.jdbc = jdbc;
        this.json = json;
        this.batches = batches;
        this.obstacles = obstacles;
        this.claimRows = claimRows;
        this.accounts = accounts;
        this.rounds = rounds;
        this.deputies = deputies;
        this.approvals = approvals;
        this.answers = answers;
    }

    /** Whether and for whom somebody may answer, or the sentence that says why not. */
    private record May(
            boolean approve, boolean decline, @Nullable String onBehalfOf, String whyNot) {
        static May of(Actor by, Round round, Roster roster) {
            Approver person = roster.of(by);
            List<Approver> standsInFor = roster.standsInFor(by.person());
            boolean decline = true;
            try {
                round.answering().decline(person, standsInFor);
            } catch (Refusal no) {
                decline = false;
            }
            try {
                Approver of = round.answering().approve(person, standsInFor);
                return new May(true, decline, of.id().equals(by.person()) ? null : of.name(), "");
            } catch (Refusal no) {
                return new May(false, decline, null, no.sentence());
            }
        }
    }

    @Transactional(readOnly = true)
    ApprovalController.DeskView waiting(Actor by) {
        record Row(
                BatchId id,
                String name,
                String account,
                Money amount,
                int claims,
                int marked,
                java.time.LocalDate checkDate,
                String sentBy) {}
        List<Row> rows = jdbc.sql("""
                        SELECT b.id, b.name, a.name, a.currency, b.check_date, p.name,
                          (SELECT COUNT(*) FROM claim c WHERE c.batch_id = b.id),
                          (SELECT COALESCE(SUM(c.amount_minor), 0) FROM claim c WHERE c.batch_id = b.id),
                          (SELECT COUNT(DISTINCT m.claim_id) FROM approval_mark m JOIN claim c ON c.id = m.claim_id
                            AND c.batch_id = b.id WHERE m.batch_id = b.id AND m.round = b.approval_round)
                        FROM batch b JOIN bank_account a ON a.id = b.bank_account_id
                        JOIN approval_round r ON r.batch_id = b.id AND r.round = b.approval_round
                        JOIN person p ON p.id = r.sent_by
                        WHERE b.state = 'IN_APPROVAL' ORDER BY b.sent_at, b.id LIMIT :most
                        """)
                .param("most", MOST_WAITING)
                .query((r, n) -> new Row(
                        new BatchId(r.getLong(1)),
                        r.getString(2),
                        r.getString(3),
                        Money.ofMinor(r.getLong(8), r.getString(4)),
                        r.getInt(7),
                        r.getInt(9),
                        r.getObject(5, java.time.LocalDate.class),
                        r.getString(6)))
                .list();
        Map<BatchId, Round> present = new HashMap<>();
        rounds.of(rows.stream().map(Row::id).toList(), by.today()).forEach(round -> present.put(round.batch(), round));
        Roster roster = deputies.roster(by.today());
        List<ApprovalController.WaitingBatch> waiting = new ArrayList<>();
        Map<Currency, Money> mine = new LinkedHashMap<>();
        for (Row row : rows) {
            Round round = Objects.requireNonNull(present.get(row.id()));
            May may = May.of(by, round, roster);
            Optional<Round.Opened> step = round.waiting();
            if (may.approve()) {
                mine.merge(row.amount().currency(), row.amount(), Money::plus);
            }
            waiting.add(new ApprovalController.WaitingBatch(
                    row.id().value(),
                    row.name(),
                    row.account(),
                    MoneyView.of(row.amount()),
                    row.claims(),
                    row.marked(),
                    row.checkDate(),
                    row.sentBy(),
                    round.sentAt(),
                    step.map(Round.Opened::openedAt).orElse(null),
                    round.current(),
                    round.opened().size(),
                    step.map(one -> one.step().name()).orElse(""),
                    round.route(),
                    round.number() + 1,
                    may.approve(),
                    may.onBehalfOf(),
                    may.whyNot(),
                    step.filter(one -> one.escalatedAt() != null).isPresent()));
        }
        waiting.sort(Comparator.comparing(one -> !one.mine()));
        return new ApprovalController.DeskView(
                waiting, mine.values().stream().map(MoneyView::of).toList(), Instant.now());
    }

    @Transactional(readOnly = true)
    ApprovalController.RouteView route(Actor by, BatchId id) {
        Batch batch = batches.get(id);
        Roster roster = deputies.roster(by.today());
        if (batch.state() != BatchState.DRAFT) {
            List<Round> round = rounds.of(List.of(id), by.today());
            if (!round.isEmpty()) {
                return route(round.get(0), roster, batch.state() == BatchState.IN_APPROVAL);
            }
        }
        return preview(approvals.choose(by, batch, claimRows.of(id)), roster);
    }

    ApprovalController.RouteView preview(Approvals.Chosen chosen, Roster roster) {
        return new ApprovalController.RouteView(
                chosen.choice().route().name(),
                chosen.choice().why(),
                false,
                chosen.choice().route().steps().stream()
                        .map(step -> new ApprovalController.RouteStepView(
                                step.name(),
                                who(step, roster),
                                step.needed(),
                                List.of(),
                                "LATER",
                                null,
                                null,
                                null,
                                List.of(),
                                names(step.secondLine(), roster)))
                        .toList(),
                considered(chosen.choice()),
                chosen.shortOf(),
                Instant.now());
    }

    static List<ApprovalController.ConsideredView> considered(leveltally.core.approval.Policy.Choice choice) {
        return choice.considered().stream()
                .map(one -> new ApprovalController.ConsideredView(one.route(), one.asked(), one.why()))
                .toList();
    }

    private static ApprovalController.RouteView route(Round round, Roster roster, boolean waits) {
        List<ApprovalController.RouteStepView> steps = new ArrayList<>();
        Progress progress = round.progress();
        for (int number = 1; number <= round.opened().size(); number++) {
            Round.Opened opened = round.opened().get(number - 1);
            boolean now = waits && number == progress.current();
            int step = number;
            steps.add(new ApprovalController.RouteStepView(
                    opened.step().name(),
                    who(opened.step(), roster),
                    opened.step().needed(),
                    round.given().stream()
                            .filter(one -> one.step() == step)
                            .map(one -> new ApprovalController.GivenView(
                                    roster.name(one.by()),
                                    one.by().equals(one.of()) ? null : roster.name(one.of()),
                                    one.at()))
                            .toList(),
                    progress.missing(number) == 0 ? "DONE" : now ? "NOW" : "LATER",
                    opened.openedAt(),
                    opened.remindedAt(),
                    opened.escalatedAt(),
                    now ? names(roster.asked(round.answering()), roster) : List.of(),
                    names(opened.step().secondLine(), roster)));
        }
        return new ApprovalController.RouteView(round.route(), round.why(), true, steps, List.of(), "", Instant.now());
    }

    /** Such as {@code 2 approvers} or {@code Maren Lindqvist or Ruth Castellane}. */
    private static String who(Step step, Roster roster) {
        Role role = step.takers().role();
        if (role != null) {
            return step.needed() + " " + RouteWords.role(role) + (step.needed() == 1 ? "" : "s");
        }
        List<String> names = names(step.takers().people(), roster);
        return step.needed() == names.size()
                ? String.join(" and ", names)
                : (step.needed() == 1 ? "" : step.needed() + " of ") + String.join(" or ", names);
    }

    private static List<String> names(Set<PersonId> people, Roster roster) {
        return people.stream().map(roster::name).sorted().toList();
    }

    @Transactional(readOnly = true)
    ApprovalController.AskedView of(Actor by, BatchId id) {
        Batch batch = batches.get(id);
        List<Round> sent = batch.state() == BatchState.DRAFT ? List.of() : rounds.of(List.of(id), by.today());
        Roster roster = deputies.roster(by.today());
        BankAccount account = accounts.get(batch.account());
        List<Claim> claims = claimRows.of(id);
        Map<ClaimId, ClaimDigest> digests = Approvals.digests(batch, claims);
        Map<ClaimId, List<MarkView>> marks = marks(id, batch.approvalRound());
        Map<ClaimId, List<String>> inTheWay = obstacles.of(id);
        int before = rounds.lastSeen(id, batch.approvalRound(), by.person());
        List<ApprovalController.StruckView> struck = struck(id);
        Comparison comparison = Comparison.of(
                before < 0 ? null : rounds.asked(id, before),
                claims.stream()
                        .map(claim -> new Comparison.Sent(
                                claim.id(),
                                claim.vendor(),
                                claim.remitTo().payee(),
                                claim.amount(),
                                digests.get(claim.id())))
                        .toList());
        List<Looked> looked = claims.stream()
                .map(claim -> looked(claim, comparison, marks, inTheWay))
                .sorted(Comparator.comparing(Looked::attention, Attention.ORDER))
                .toList();
        Map<ClaimId, Place> places = places(id);
        boolean waits = batch.state() == BatchState.IN_APPROVAL;
        May may = waits && !sent.isEmpty()
                ? May.of(by, sent.get(0), roster)
                : new May(
                        false, false, null, "This batch is " + batch.state().words() + "; there is nothing to answer.");
        return new ApprovalController.AskedView(
                id.value(),
                batch.name(),
                batch.note(),
                account.name(),
                account.currency().getCurrencyCode(),
                batch.method().name(),
                batch.checkDate(),
                batch.ledgerDate(),
                batch.state().name(),
                batch.state().words(),
                Money.sum(claims.stream().map(Claim::amount).toList(), account.currency())
                        .toString(),
                sent.isEmpty() ? "" : roster.name(sent.get(0).sentBy()),
                batch.sentAt(),
                names(batches.hands(id), roster),
                batch.approvalRound() + 1,
                sent.isEmpty() ? null : route(sent.get(0), roster, waits),
                ClaimDigest.ofAll(batch.approvalRound(), digests.values()).hex(),
                may.approve(),
                may.decline(),
                may.onBehalfOf(),
                may.whyNot(),
                looked.stream().map(one -> one.view(places)).toList(),
                comparison.gone().stream()
                        .map(one -> new ApprovalController.GoneView(
                                one.payee(), one.amount().toString()))
                        .toList(),
                struck,
                notes(id, batch.approvalRound() - 1),
                (int) looked.stream().filter(one -> !one.marks().isEmpty()).count(),
                (int) looked.stream()
                        .filter(one -> one.since().since() == Comparison.Since.NEW
                                || one.since().since() == Comparison.Since.CHANGED)
                        .count(),
                before >= 0);
    }

    /** A claim with all that decides its place in the list. */
    private record Looked(
            Claim claim, Comparison.Compared since, List<MarkView> marks, List<String> inTheWay, Attention attention) {
        ApprovalController.AskedClaim view(Map<ClaimId, Place> places) {
            Place place = places.getOrDefault(claim.id(), new Place("", ""));
            Money was = since.was();
            return new ApprovalController.AskedClaim(
                    claim.id().value(),
                    claim.vendor().value(),
                    claim.remitTo().payee(),
                    place.address(),
                    place.bank(),
                    claim.amount().toString(),
                    claim.lines().size(),
                    since.since().name(),
                    was == null || since.since() != Comparison.Since.CHANGED ? null : was.toString(),
                    marks,
                    inTheWay);
        }
    }

    @Transactional(readOnly = true)
    List<ApprovalController.AskedLine> lines(BatchId batch, ClaimId claim) {
        return jdbc.sql("""
                        SELECT l.id, l.kind, l.reference, l.invoice_date, i.due_date, l.gross_minor, l.discount_minor,
                          l.credit_minor, l.cash_minor, l.currency,
                          (SELECT GROUP_CONCAT(DISTINCT a.name ORDER BY a.name SEPARATOR ', ') FROM ledger_account a
                            WHERE a.id IN (SELECT n.account_id FROM invoice_line n WHERE n.invoice_id = l.invoice_id
                              UNION SELECT x.account_id FROM claim_line_account x WHERE x.line_id = l.id))
                        FROM claim c JOIN claim_line l ON l.claim_id = c.id LEFT JOIN invoice i ON i.id = l.invoice_id
                        WHERE c.batch_id = ? AND c.id = ? ORDER BY l.kind DESC, l.invoice_date, l.invoice_id, l.id
                        """)
                .params(batch.value(), claim.value())
                .query((r, n) -> {
                    String currency = r.getString(10);
                    boolean credit = r.getString(2).equals("CREDIT");
                    Money gross = Money.ofMinor(r.getLong(6), currency);
                    String what = r.getString(11);
                    return new ApprovalController.AskedLine(
                            r.getLong(1),
                            r.getString(2),
                            r.getString(3),
                            r.getObject(4, java.time.LocalDate.class),
                            r.getObject(5, java.time.LocalDate.class),
                            (credit ? gross.negated() : gross).toString(),
                            shown(r.getLong(7), currency),
                            credit ? "" : shown(r.getLong(8), currency),
                            Money.ofMinor(r.getLong(9), currency).toString(),
                            what == null ? "" : what);
                })
                .list();
    }

    private static String shown(long minor, String currency) {
        return minor == 0 ? "" : Money.ofMinor(minor, currency).toString();
    }

    private record Place(String address, String bank) {}

    private static Looked looked(
            Claim claim,
            Comparison comparison,
            Map<ClaimId, List<MarkView>> marks,
            Map<ClaimId, List<String>> inTheWay) {
        Comparison.Compared since = Objects.requireNonNull(comparison.now().get(claim.id()));
        List<MarkView> own = marks.getOrDefault(claim.id(), List.of());
        List<String> way = inTheWay.getOrDefault(claim.id(), List.of());
        return new Looked(
                claim,
                since,
                own,
                way,
                new Attention(
                        !way.isEmpty(),
                        since.since(),
                        own.stream().map(mark -> MarkKind.valueOf(mark.kind())).toList(),
                        claim.amount()));
    }

    private Map<ClaimId, Place> places(BatchId id) {
        Map<ClaimId, Place> places = new HashMap<>();
        jdbc.sql("SELECT id, address, bank_mask FROM claim WHERE batch_id = ?")
                .param(id.value())
                .query((ResultSet r) -> {
                    places.put(
                            new ClaimId(r.getLong(1)), new Place(r.getString(2).replace("\n", ", "), r.getString(3)));
                });
        return places;
    }

    @Transactional(readOnly = true)
    ApprovalController.LooksView looks(Actor by, BatchId id) {
        Batch batch = batches.get(id);
        Map<ClaimId, List<MarkView>> marks = new LinkedHashMap<>();
        if (batch.state() == BatchState.DRAFT) {
            Map<String, MarkAnswers.Answer> said = answers.of(id);
            approvals
                    .choose(by, batch, claimRows.of(id))
                    .marks()
                    .forEach((claim, found) -> marks.put(
                            claim,
                            found.stream().map(mark -> MarkView.of(mark, said)).toList()));
        } else {
            marks.putAll(marks(id, batch.approvalRound()));
        }
        int back = batch.approvalRound() - 1;
        return new ApprovalController.LooksView(
                marks.entrySet().stream()
                        .map(one ->
                                new ApprovalController.ClaimMarks(one.getKey().value(), one.getValue()))
                        .toList(),
                notes(id, back),
                struck(id));
    }

    /** The marks as they were sent, with the newest answers. */
    private Map<ClaimId, List<MarkView>> marks(BatchId id, int round) {
        Map<String, MarkAnswers.Answer> said = answers.of(id);
        Map<ClaimId, List<MarkView>> marks = new LinkedHashMap<>();
        TypeReference<List<FactView>> facts = new TypeReference<>() {};
        jdbc.sql("SELECT claim_id, mark_key, kind, reason, facts FROM approval_mark WHERE batch_id = ? AND round = ?"
                        + " ORDER BY claim_id")
                .params(id.value(), round)
                .query((ResultSet r) -> {
                    marks.computeIfAbsent(new ClaimId(r.getLong(1)), none -> new ArrayList<>())
                            .add(MarkView.of(
                                    r.getString(2),
                                    MarkKind.valueOf(r.getString(3)),
                                    r.getString(4),
                                    json.readValue(r.getString(5), facts),
                                    said));
                });
        marks.values().forEach(own -> own.sort(Comparator.comparing(mark -> MarkKind.valueOf(mark.kind()))));
        return marks;
    }

    private List<ApprovalController.StruckView> struck(BatchId id) {
        return jdbc.sql("""
                        SELECT s.payee, s.amount_minor, s.currency, s.reason, p.name, s.at, s.round FROM approval_strike s
                        JOIN person p ON p.id = s.person_id WHERE s.batch_id = ? ORDER BY s.id
                        """)
                .param(id.value())
                .query((r, n) -> new ApprovalController.StruckView(
                        r.getString(1),
                        Money.ofMinor(r.getLong(2), r.getString(3)).toString(),
                        r.getString(4),
                        r.getString(5),
                        r.getTimestamp(6).toInstant(),
                        r.getInt(7) + 1))
                .list();
    }

    private List<ApprovalController.NoteView> notes(BatchId id, int round) {
        return jdbc.sql("""
                        SELECT n.claim_id, n.payee, n.note, p.name, n.round FROM approval_note n
                        JOIN person p ON p.id = n.person_id WHERE n.batch_id = ? AND n.round = ? ORDER BY n.claim_id
                        """)
                .params(id.value(), round)
                .query((r, n) -> new ApprovalController.NoteView(
                        r.getLong(1), r.getString(2), r.getString(3), r.getString(4), r.getInt(5) + 1))
                .list();
    }
}
