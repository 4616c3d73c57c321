package leveltally.server.approval;

import io.swagger.v3.oas.annotations.media.Schema;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.Instant;
import java.time.LocalDate;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.ClaimId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.frame.MoneyView;
import leveltally.server.frame.Needs;
import leveltally.server.marks.MarkAnswers;
import leveltally.server.marks.MarkView;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** What waits for approval, and the answers. */
@RestController
@RequestMapping("/api")
@Needs(Deed.READ)
class ApprovalController {
    private final Approvals approvals;
    private final ApprovalViews views;
    private final MarkAnswers answers;

    ApprovalController(Approvals approvals, ApprovalViews views, MarkAnswers answers) {
        this.approvals = approvals;
        this.views = views;
        this.answers = answers;
    }

    /** {@code whyNot} says why it does not wait for whoever looks; empty when it does. */
    @Schema(
            requiredProperties = {
                "id",
                "name",
                "account",
                "amount",
                "claims",
                "marked",
                "sentBy",
                "sentAt",
                "step",
                "steps",
                "stepName",
                "route",
                "round",
                "mine",
                "whyNot",
                "escalated",
                "checkDate"
            })
    record WaitingBatch(
            long id,
            String name,
            String account,
            MoneyView amount,
            int claims,
            int marked,
            LocalDate checkDate,
            String sentBy,
            Instant sentAt,
            @Nullable Instant since,
            int step,
            int steps,
            String stepName,
            String route,
            int round,
            boolean mine,
            @Nullable String onBehalfOf,
            String whyNot,
            boolean escalated) {}

    /**
     * What waits.
     *
     * @param mine sums what waits for whoever looks, per currency, that of the oldest first
     * @param now the instant it is of: how long something waits is reckoned from it
     */
    @Schema(requiredProperties = {"batches", "mine", "now"})
    record DeskView(List<WaitingBatch> batches, List<MoneyView> mine, Instant now) {}

    @Schema(requiredProperties = {"who", "at"})
    record GivenView(String who, @Nullable String onBehalfOf, Instant at) {}

    /** {@code state} is DONE, NOW or LATER; {@code asked} names who may answer now. */
    @Schema(requiredProperties = {"name", "who", "needed", "given", "state", "asked", "secondLine"})
    record RouteStepView(
            String name,
            String who,
            int needed,
            List<GivenView> given,
            String state,
            @Nullable Instant openedAt,
            @Nullable Instant remindedAt,
            @Nullable Instant escalatedAt,
            List<String> asked,
            List<String> secondLine) {}

    @Schema(requiredProperties = {"route", "asked", "why"})
    record ConsideredView(String route, boolean asked, String why) {}

    /**
     * A batch's route: the one it was sent on, or, for a draft, the one it would take.
     *
     * @param now the instant it is of
     * @param shortOf the step that could not be completed by different people; empty for none
     */
    @Schema(requiredProperties = {"route", "why", "sent", "steps", "considered", "shortOf", "now"})
    record RouteView(
            String route,
            String why,
            boolean sent,
            List<RouteStepView> steps,
            List<ConsideredView> considered,
            String shortOf,
            Instant now) {}

    /** {@code since} is NEW, CHANGED, SAME or FIRST; {@code was} the amount before, {@code inTheWay} why it cannot go on. */
    @Schema(
            requiredProperties = {
                "id",
                "vendor",
                "payee",
                "address",
                "bank",
                "amount",
                "lines",
                "since",
                "marks",
                "inTheWay"
            })
    record AskedClaim(
            long id,
            long vendor,
            String payee,
            String address,
            String bank,
            String amount,
            int lines,
            String since,
            @Nullable String was,
            List<MarkView> marks,
            List<String> inTheWay) {}

    /** One line of an asked payment; {@code what} names the accounts it was entered to. */
    @Schema(requiredProperties = {"line", "kind", "reference", "gross", "discount", "credit", "cash", "what"})
    record AskedLine(
            long line,
            String kind,
            String reference,
            @Nullable LocalDate invoiceDate,
            @Nullable LocalDate dueDate,
            String gross,
            String discount,
            String credit,
            String cash,
            String what) {}

    @Schema(requiredProperties = {"payee", "amount"})
    record GoneView(String payee, String amount) {}

    @Schema(requiredProperties = {"payee", "amount", "reason", "who", "at", "round"})
    record StruckView(String payee, String amount, String reason, String who, Instant at, int round) {}

    @Schema(requiredProperties = {"claim", "payee", "note", "who", "round"})
    record NoteView(long claim, String payee, String note, String who, int round) {}

    /** {@code seen} is handed back with an approval; {@code compared} is true when there is an earlier round to compare. */
    @Schema(
            requiredProperties = {
                "id", "name", "note", "account", "currency", "method", "checkDate", "ledgerDate", "state", "stateWords",
                "amount", "sentBy", "hands", "round", "route", "seen", "mayApprove", "mayDecline", "whyNot", "claims",
                "gone", "struck", "notes", "marked", "changed", "compared"
            })
    record AskedView(
            long id,
            String name,
            String note,
            String account,
            String currency,
            String method,
            LocalDate checkDate,
            LocalDate ledgerDate,
            String state,
            String stateWords,
            String amount,
            String sentBy,
            @Nullable Instant sentAt,
            List<String> hands,
            int round,
            @Nullable RouteView route,
            String seen,
            boolean mayApprove,
            boolean mayDecline,
            @Nullable String onBehalfOf,
            String whyNot,
            List<AskedClaim> claims,
            List<GoneView> gone,
            List<StruckView> struck,
            List<NoteView> notes,
            int marked,
            int changed,
            boolean compared) {}

    /** What to look at in a batch, by claim: its marks, and what an approver noted when it was sent back. */
    @Schema(requiredProperties = {"marks", "notes", "struck"})
    record LooksView(List<ClaimMarks> marks, List<NoteView> notes, List<StruckView> struck) {}

    @Schema(requiredProperties = {"claim", "marks"})
    record ClaimMarks(long claim, List<MarkView> marks) {}

    record Seen(long version) {}

    record ApproveSeen(@NotNull @Size(max = 64) String seen) {}

    record StrikePayments(
            @NotEmpty @Size(max = 500) List<Long> claims,
            @NotNull @Size(max = 500) String reason) {}

    record ClaimNote(long claim, @NotNull @Size(max = 500) String note) {}

    record SendBack(
            @NotNull @Size(max = 500) String reason,
            @Nullable @Size(max = 500) List<@Valid ClaimNote> notes) {}

    record AnswerMark(
            @NotNull @Size(max = 120) String key,
            @NotNull @Size(max = 500) String note) {}

    /** What waits for whoever asks, oldest first, then what waits for others. */
    @GetMapping("/approval")
    DeskView waiting(Actor by) {
        return views.waiting(by);
    }

    /** A batch as it was sent, its claims in the order in which they deserve a look. */
    @GetMapping("/approval/{id}")
    AskedView one(Actor by, @PathVariable long id) {
        return views.of(by, new BatchId(id));
    }

    /** The invoices and credits behind one payment. */
    @GetMapping("/approval/{id}/claims/{claim}")
    List<AskedLine> lines(@PathVariable long id, @PathVariable long claim) {
        return views.lines(new BatchId(id), new ClaimId(claim));
    }

    @GetMapping("/batches/{id}/route")
    RouteView route(Actor by, @PathVariable long id) {
        return views.route(by, new BatchId(id));
    }

    @GetMapping("/batches/{id}/looks")
    LooksView looks(Actor by, @PathVariable long id) {
        return views.looks(by, new BatchId(id));
    }

    @PostMapping("/batches/{id}/marks")
    @Needs(Deed.EDIT_BATCH)
    LooksView answer(Actor by, @PathVariable long id, @Valid @RequestBody AnswerMark wanted) {
        answers.answer(by, new BatchId(id), wanted.key(), wanted.note());
        return views.looks(by, new BatchId(id));
    }

    @PostMapping("/batches/{id}/send")
    @Needs(Deed.SEND_BATCH)
    void send(Actor by, @PathVariable long id, @RequestBody Seen at) {
        approvals.send(by, new BatchId(id), at.version());
    }

    @PostMapping("/batches/{id}/approve")
    @Needs(Deed.APPROVE)
    void approve(Actor by, @PathVariable long id, @Valid @RequestBody ApproveSeen wanted) {
        approvals.approve(by, new BatchId(id), wanted.seen());
    }

    @PostMapping("/batches/{id}/strike")
    @Needs(Deed.APPROVE)
    void strike(Actor by, @PathVariable long id, @Valid @RequestBody StrikePayments wanted) {
        approvals.strike(
                by,
                new BatchId(id),
                new HashSet<>(wanted.claims().stream().map(ClaimId::new).toList()),
                wanted.reason());
    }

    @PostMapping("/batches/{id}/send-back")
    @Needs(Deed.APPROVE)
    void sendBack(Actor by, @PathVariable long id, @Valid @RequestBody SendBack wanted) {
        Map<ClaimId, String> notes = new HashMap<>();
        List<ClaimNote> said = wanted.notes();
        if (said != null) {
            said.forEach(note -> notes.put(new ClaimId(note.claim()), note.note()));
        }
        approvals.sendBack(by, new BatchId(id), wanted.reason(), notes);
    }
}
