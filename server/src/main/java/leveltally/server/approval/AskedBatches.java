package leveltally.server.approval;

import java.sql.ResultSet;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import leveltally.core.approval.Attention;
import leveltally.core.approval.ClaimDigest;
import leveltally.core.approval.Comparison;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.batches.Claim;
import leveltally.core.batches.ClaimId;
import leveltally.core.batches.ClaimLine;
import leveltally.core.marks.MarkKind;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.server.batches.Batch;
import leveltally.server.batches.Batches;
import leveltally.server.batches.ClaimRows;
import leveltally.server.batches.Obstacles;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.marks.MarkView;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** A batch as an approver is asked for it; a fixed number of statements, whatever its size. */
@Component
class AskedBatches {
    private final JdbcClient jdbc;
    private final Batches batches;
    private final Obstacles obstacles;
    private final ClaimRows claimRows;
    private final BankAccounts accounts;
    private final Rounds rounds;
    private final Deputies deputies;
    private final Looks looks;

    AskedBatches(
            JdbcClient jdbc,
            Batches batches,
            Obstacles obstacles,
            ClaimRows claimRows,
            BankAccounts accounts,
            Rounds rounds,
            Deputies deputies,
            Looks looks) {
        this.jdbc = jdbc;
        this.batches = batches;
        this.obstacles = obstacles;
        this.claimRows = claimRows;
        this.accounts = accounts;
        this.rounds = rounds;
        this.deputies = deputies;
        this.looks = looks;
    }

    @Transactional(readOnly = true)
    AskedView of(Actor by, BatchId id) {
        Batch batch = batches.get(id);
        List<Round> sent = batch.state() == BatchState.DRAFT ? List.of() : rounds.of(List.of(id), by.today());
        Roster roster = deputies.roster(by.today());
        BankAccount account = accounts.get(batch.account());
        List<Claim> claims = claimRows.of(id);
        Map<ClaimId, ClaimDigest> digests = Verification.digests(batch, claims);
        Map<ClaimId, List<MarkView>> marks = looks.marks(id, batch.approvalRound());
        Map<ClaimId, List<String>> inTheWay = obstacles.of(id);
        int before = rounds.lastSeen(id, batch.approvalRound(), by.person());
        List<LooksView.StruckView> struck = looks.struck(id);
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
        return new AskedView(
                id.value(),
                batch.name(),
                batch.note(),
                account.name(),
                account.currency().getCurrencyCode(),
                batch.method().words(),
                batch.checkDate(),
                batch.ledgerDate(),
                batch.state().name(),
                batch.state().words(),
                Money.sum(claims.stream().map(Claim::amount).toList(), account.currency())
                        .toString(),
                sent.isEmpty() ? "" : roster.name(sent.get(0).sentBy()),
                batch.sentAt(),
                RouteViews.names(batches.hands(id), roster),
                batch.approvalRound() + 1,
                sent.isEmpty() ? null : RouteViews.of(sent.get(0), roster, waits),
                ClaimDigest.ofAll(batch.approvalRound(), digests.values()).hex(),
                may.approve(),
                may.decline(),
                may.onBehalfOf(),
                may.whyNot(),
                looked.stream().map(one -> one.view(places)).toList(),
                comparison.gone().stream()
                        .map(one ->
                                new AskedView.GoneView(one.payee(), one.amount().toString()))
                        .toList(),
                struck,
                looks.notes(id, batch.approvalRound() - 1),
                (int) looked.stream().filter(one -> !one.marks().isEmpty()).count(),
                (int) looked.stream()
                        .filter(one -> one.since().since() == Comparison.Since.NEW
                                || one.since().since() == Comparison.Since.CHANGED)
                        .count(),
                before >= 0,
                batch.purpose().isAfterTheFact());
    }

    /** A claim with all that decides its place in the list. */
    private record Looked(
            Claim claim, Comparison.Compared since, List<MarkView> marks, List<String> inTheWay, Attention attention) {
        AskedView.AskedClaim view(Map<ClaimId, Place> places) {
            Place place = places.getOrDefault(claim.id(), new Place("", "", ""));
            Money was = since.was();
            return new AskedView.AskedClaim(
                    claim.id().value(),
                    claim.vendor().value(),
                    claim.remitTo().payee(),
                    place.number(),
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
    List<AskedLine> lines(BatchId batch, ClaimId claim) {
        Map<Long, String> shares = shares(claim);
        return jdbc.sql("""
                        SELECT l.id, l.kind, l.reference, l.invoice_date, i.due_date, l.gross_minor, l.discount_minor,
                          l.credit_minor, l.cash_minor, l.currency, l.usable_from,
                          (SELECT GROUP_CONCAT(DISTINCT a.name ORDER BY a.name SEPARATOR ', ') FROM ledger_account a
                            WHERE a.id IN (SELECT n.account_id FROM invoice_line n WHERE n.invoice_id = l.invoice_id))
                            AS accounts
                        FROM claim c JOIN claim_line l ON l.claim_id = c.id LEFT JOIN invoice i ON i.id = l.invoice_id
                        WHERE c.batch_id = ? AND c.id = ? ORDER BY l.kind DESC, l.invoice_date, l.invoice_id, l.id
                        """)
                .params(batch.value(), claim.value())
                .query((r, n) -> {
                    String currency = r.getString("currency");
                    boolean credit = r.getString("kind").equals("CREDIT");
                    Money gross = Money.ofMinor(r.getLong("gross_minor"), currency);
                    String what = r.getString("accounts");
                    return new AskedLine(
                            r.getLong("id"),
                            r.getString("kind"),
                            r.getString("reference"),
                            r.getObject("invoice_date", java.time.LocalDate.class),
                            r.getObject("due_date", java.time.LocalDate.class),
                            (credit ? gross.negated() : gross).toString(),
                            shown(r.getLong("discount_minor"), currency),
                            credit ? "" : shown(r.getLong("credit_minor"), currency),
                            Money.ofMinor(r.getLong("cash_minor"), currency).toString(),
                            what == null ? shares.getOrDefault(r.getLong("id"), "") + ahead(r) : what);
                })
                .list();
    }

    private static String ahead(ResultSet r) throws java.sql.SQLException {
        return r.getString("kind").equals("PREPAYMENT")
                ? ", "
                        + ClaimLine.Prepayment.inWords(
                                r.getString("reference"), r.getObject("usable_from", java.time.LocalDate.class))
                : "";
    }

    /** What lines without an invoice are for: each account with its share. */
    private Map<Long, String> shares(ClaimId claim) {
        Map<Long, String> shares = new HashMap<>();
        jdbc.sql("SELECT x.line_id, a.code, a.name, x.job, x.amount_minor, l.currency FROM claim_line l"
                        + " JOIN claim_line_account x ON x.line_id = l.id JOIN ledger_account a ON a.id = x.account_id"
                        + " WHERE l.claim_id = ? ORDER BY x.line_id, x.position")
                .param(claim.value())
                .query((ResultSet r) -> {
                    String job = r.getString("job");
                    String share =
                            r.getString("code") + " " + r.getString("name") + (job.isEmpty() ? "" : ", job " + job)
                                    + " " + Money.ofMinor(r.getLong("amount_minor"), r.getString("currency"));
                    shares.merge(r.getLong("line_id"), share, (before, next) -> before + "; " + next);
                });
        return shares;
    }

    private static String shown(long minor, String currency) {
        return minor == 0 ? "" : Money.ofMinor(minor, currency).toString();
    }

    /** @param number under which it was paid elsewhere; empty for all others */
    private record Place(String number, String address, String bank) {}

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
        jdbc.sql("SELECT c.id, c.address, c.bank_mask, COALESCE(o.number, '') AS number FROM claim c"
                        + " LEFT JOIN outside_entry o ON o.claim_id = c.id WHERE c.batch_id = ?")
                .param(id.value())
                .query((ResultSet r) -> {
                    places.put(
                            new ClaimId(r.getLong("id")),
                            new Place(
                                    r.getString("number"),
                                    r.getString("address").replace("\n", ", "),
                                    r.getString("bank_mask")));
                });
        return places;
    }
}
