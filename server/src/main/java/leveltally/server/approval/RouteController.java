package leveltally.server.approval;

import io.swagger.v3.oas.annotations.media.Schema;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.Instant;
import java.time.LocalDate;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import leveltally.core.approval.Completion;
import leveltally.core.approval.Policy;
import leveltally.core.batches.BatchId;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.marks.MarkKind;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.batches.Batch;
import leveltally.server.batches.Batches;
import leveltally.server.batches.ClaimRows;
import leveltally.server.frame.Needs;
import leveltally.server.ledger.BankAccounts;
import org.jspecify.annotations.Nullable;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** The routes of approval: kept, checked and tried out. */
@RestController
@RequestMapping("/api/routes")
@Needs(Deed.READ)
class RouteController {
    private final Policies policies;
    private final Approvals approvals;
    private final ApprovalViews views;
    private final Deputies deputies;
    private final Batches batches;
    private final ClaimRows claimRows;
    private final BankAccounts accounts;

    RouteController(
            Policies policies,
            Approvals approvals,
            ApprovalViews views,
            Deputies deputies,
            Batches batches,
            ClaimRows claimRows,
            BankAccounts accounts) {
        this.policies = policies;
        this.approvals = approvals;
        this.views = views;
        this.deputies = deputies;
        this.batches = batches;
        this.claimRows = claimRows;
        this.accounts = accounts;
    }

    /** {@code state} is NOW, LATER or PAST. */
    @Schema(requiredProperties = {"id", "from", "content", "note", "madeBy", "madeAt", "state", "mayConfirm"})
    record KeptRoutes(
            long id,
            LocalDate from,
            PolicyContent content,
            String note,
            String madeBy,
            Instant madeAt,
            @Nullable String confirmedBy,
            String state,
            boolean mayConfirm) {}

    @Schema(requiredProperties = {"kind", "words"})
    record MarkChoice(String kind, String words) {}

    /** All sets of routes that were kept, and what they can be made of. */
    @Schema(requiredProperties = {"kept", "marks", "earliest"})
    record RoutesView(List<KeptRoutes> kept, List<MarkChoice> marks, LocalDate earliest) {}

    record KeepRoutes(
            @NotNull LocalDate from,
            @NotNull @Size(max = 300) String note,
            @NotNull @Valid PolicyContent content) {}

    @Schema(requiredProperties = {"warnings"})
    record CheckedRoutes(List<String> warnings) {}

    /** A batch, or what one would be like. */
    record TryRoutes(
            @NotNull @Valid PolicyContent content,
            @Nullable Long batch,
            @Nullable Long account,
            @Nullable @Size(max = 20) String total,
            @Nullable @Size(max = 20) String largest,
            @Nullable @Size(max = 20) List<@NotNull MarkKind> marks) {}

    /** What was tried, in words, and the route it takes. */
    @Schema(requiredProperties = {"asking", "route"})
    record TriedRoutes(String asking, ApprovalController.RouteView route) {}

    @GetMapping
    RoutesView all(Actor by) {
        List<Policies.Kept> kept = policies.all();
        Long now = policies.on(by.today()).id();
        return new RoutesView(
                kept.stream()
                        .map(one -> new KeptRoutes(
                                one.id(),
                                one.from(),
                                one.content(),
                                one.note(),
                                one.madeBy(),
                                one.madeAt(),
                                one.confirmedBy(),
                                state(one, now, by.today()),
                                one.confirmedOn() == null && !one.maker().equals(by.person())))
                        .toList(),
                java.util.Arrays.stream(MarkKind.values())
                        .map(kind -> new MarkChoice(kind.name(), kind.words()))
                        .toList(),
                by.today().plusDays(1));
    }

    private static String state(Policies.Kept one, @Nullable Long now, LocalDate today) {
        LocalDate confirmed = one.confirmedOn();
        if (confirmed == null) {
            return "PROPOSED";
        }
        if (now != null && one.id() == now) {
            return "NOW";
        }
        return one.from().isAfter(today) || !confirmed.isBefore(today) ? "LATER" : "PAST";
    }

    @PostMapping
    @Needs(Deed.SET_ROUTES)
    void propose(Actor by, @Valid @RequestBody KeepRoutes wanted) {
        policies.propose(by, wanted.from(), wanted.note(), wanted.content());
    }

    /** A second person agrees to a set somebody else proposed. */
    @PostMapping("/{id}/confirm")
    @Needs(Deed.CONFIRM_ROUTES)
    void confirm(Actor by, @PathVariable long id) {
        policies.confirm(by, id);
    }

    @PostMapping("/check")
    @Needs(Deed.SET_ROUTES)
    CheckedRoutes check(Actor by, @Valid @RequestBody PolicyContent content) {
        return new CheckedRoutes(policies.check(by.today(), content));
    }

    @PostMapping("/try")
    @Needs(Deed.SET_ROUTES)
    @Transactional(readOnly = true)
    public TriedRoutes tryOut(Actor by, @Valid @RequestBody TryRoutes wanted) {
        Policies.InForce policy = new Policies.InForce(null, wanted.content().policy());
        Roster roster = deputies.roster(by.today());
        Long id = wanted.batch();
        Approvals.Chosen chosen;
        String name;
        if (id != null) {
            Batch batch = batches.get(new BatchId(id));
            chosen = approvals.choose(by, batch, claimRows.of(batch.id()), policy);
            name = "“" + batch.name() + "”";
        } else {
            Policy.Asking asking = typed(wanted);
            Policy.Choice choice = policy.policy().choose(asking);
            chosen = new Approvals.Chosen(
                    policy,
                    asking,
                    choice,
                    java.util.Map.of(),
                    Completion.shortOf(choice.route().steps(), roster.people().values(), Set.of()));
            name = "A batch";
        }
        return new TriedRoutes(name + " " + words(chosen.asking()), views.preview(chosen, roster));
    }

    private Policy.Asking typed(TryRoutes wanted) {
        Long id = wanted.account();
        if (id == null) {
            throw leveltally.core.Refusal.invalidField(
                    "no-account", "account", "Choose a batch, or a bank account and amounts.");
        }
        var currency = accounts.get(new BankAccountId(id)).currency();
        Money total = Money.typed(wanted.total() == null ? "0" : wanted.total(), currency, "total");
        Money largest = Money.typed(wanted.largest() == null ? "0" : wanted.largest(), currency, "largest");
        List<MarkKind> marks = wanted.marks();
        return new Policy.Asking(
                new BankAccountId(id), total.max(largest), largest, marks == null ? Set.of() : new HashSet<>(marks));
    }

    private String words(Policy.Asking asking) {
        String marks = String.join(
                ", ", asking.marks().stream().sorted().map(MarkKind::words).toList());
        return "on " + accounts.get(asking.account()).name() + ", total " + asking.total() + " "
                + asking.total().currency() + ", largest payment " + asking.largest()
                + (marks.isEmpty() ? ", nothing marked" : ", marked: " + marks);
    }
}
