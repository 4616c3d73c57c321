package leveltally.server.approval;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import leveltally.core.batches.BatchId;
import leveltally.core.people.Actor;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Asking for approval and answering. */
@RestController
@RequestMapping("/api/batches/{id}")
class ApprovalController {
    private final Approvals approvals;

    ApprovalController(Approvals approvals) {
        this.approvals = approvals;
    }

    record Seen(long version) {}

    record SendBack(long version, @NotNull @Size(max = 500) String reason) {}

    @PostMapping("/send")
    void send(Actor by, @PathVariable long id, @RequestBody Seen seen) {
        approvals.send(by, new BatchId(id), seen.version());
    }

    @PostMapping("/approve")
    void approve(Actor by, @PathVariable long id, @RequestBody Seen seen) {
        approvals.approve(by, new BatchId(id), seen.version());
    }

    @PostMapping("/send-back")
    void sendBack(Actor by, @PathVariable long id, @Valid @RequestBody SendBack wanted) {
        approvals.sendBack(by, new BatchId(id), wanted.version(), wanted.reason());
    }
}
