package leveltally.server.approval;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.ClaimId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.frame.Needs;
import leveltally.server.marks.MarkAnswers;
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
    private final Sending sending;
    private final Desk desk;
    private final AskedBatches asked;
    private final RouteViews routes;
    private final Looks looks;
    private final MarkAnswers answers;

    ApprovalController(
            Approvals approvals,
            Sending sending,
            Desk desk,
            AskedBatches asked,
            RouteViews routes,
            Looks looks,
            MarkAnswers answers) {
        this.approvals = approvals;
        this.sending = sending;
        this.desk = desk;
        this.asked = asked;
        this.routes = routes;
        this.looks = looks;
        this.answers = answers;
    }

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
        return desk.of(by);
    }

    /** A batch as it was sent, its claims in the order in which they deserve a look. */
    @GetMapping("/approval/{id}")
    AskedView one(Actor by, @PathVariable long id) {
        return asked.of(by, new BatchId(id));
    }

    /** The invoices and credits behind one payment. */
    @GetMapping("/approval/{id}/claims/{claim}")
    List<AskedLine> lines(@PathVariable long id, @PathVariable long claim) {
        return asked.lines(new BatchId(id), new ClaimId(claim));
    }

    @GetMapping("/batches/{id}/route")
    RouteView route(Actor by, @PathVariable long id) {
        return routes.of(by, new BatchId(id));
    }

    @GetMapping("/batches/{id}/looks")
    LooksView looks(Actor by, @PathVariable long id) {
        return looks.of(by, new BatchId(id));
    }

    @PostMapping("/batches/{id}/marks")
    @Needs(Deed.EDIT_BATCH)
    LooksView answer(Actor by, @PathVariable long id, @Valid @RequestBody AnswerMark wanted) {
        answers.answer(by, new BatchId(id), wanted.key(), wanted.note());
        return looks.of(by, new BatchId(id));
    }

    @PostMapping("/batches/{id}/send")
    @Needs(Deed.SEND_BATCH)
    void send(Actor by, @PathVariable long id, @RequestBody Seen at) {
        sending.send(by, new BatchId(id), at.version());
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
