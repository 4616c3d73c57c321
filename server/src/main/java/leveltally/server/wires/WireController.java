package leveltally.server.wires;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.LocalDate;
import java.util.List;
import java.util.stream.Collectors;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.ClaimId;
import leveltally.core.payments.PaymentId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.frame.Needs;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Wires of a batch, to be ordered at the bank's site. */
@RestController
@RequestMapping("/api")
@Needs(Deed.READ)
class WireController {
    private static final int MOST = 1_000;

    private final WireLists lists;
    private final WireViews views;

    WireController(WireLists lists, WireViews views) {
        this.lists = lists;
        this.views = views;
    }

    /** {@code fee} empty for nothing. */
    record WireConfirmed(
            @NotNull @Size(max = 60) String bankReference,
            @NotNull @Size(max = 40) String fee,
            @NotNull LocalDate sentOn) {}

    record OutOfWires(
            @NotEmpty @Size(max = MOST) List<@NotNull Long> claims,
            @NotNull @Size(max = 300) String why) {}

    @GetMapping("/batches/{id}/wires")
    WiresView view(Actor by, @PathVariable long id) {
        return views.of(by, new BatchId(id));
    }

    /** Puts all that can on the list, and answers how it stands then. */
    @PostMapping("/batches/{id}/wires")
    @Needs(Deed.MAKE_BANK_FILE)
    WiresView list(Actor by, @PathVariable long id) {
        lists.list(by, new BatchId(id));
        return views.of(by, new BatchId(id));
    }

    /** The list, with whole account numbers. */
    @GetMapping(value = "/batches/{id}/wires/pdf", produces = MediaType.APPLICATION_PDF_VALUE)
    @Needs(Deed.MAKE_BANK_FILE)
    ResponseEntity<byte[]> pdf(Actor by, @PathVariable long id) {
        return ResponseEntity.ok()
                .header(HttpHeaders.CONTENT_DISPOSITION, "inline; filename=\"wires-batch-" + id + ".pdf\"")
                .body(views.list(by, new BatchId(id)));
    }

    /** What is typed at the bank's site for one wire. */
    @PostMapping("/wires/{payment}/open")
    @Needs(Deed.MAKE_BANK_FILE)
    List<WiresView.WireField> open(Actor by, @PathVariable long payment) {
        return views.open(by, new PaymentId(payment));
    }

    @PostMapping("/wires/{payment}/confirm")
    @Needs(Deed.MAKE_BANK_FILE)
    void confirm(Actor by, @PathVariable long payment, @Valid @RequestBody WireConfirmed said) {
        lists.confirm(by, new PaymentId(payment), new WireLists.Typed(said.bankReference(), said.fee(), said.sentOn()));
    }

    /** Takes payments out that the bank has not sent. */
    @PostMapping("/batches/{id}/wires/take-out")
    @Needs(Deed.PRINT)
    WiresView takeOut(Actor by, @PathVariable long id, @Valid @RequestBody OutOfWires wanted) {
        lists.takeOut(
                by,
                new BatchId(id),
                wanted.claims().stream().map(ClaimId::new).collect(Collectors.toSet()),
                wanted.why());
        return views.of(by, new BatchId(id));
    }
}
