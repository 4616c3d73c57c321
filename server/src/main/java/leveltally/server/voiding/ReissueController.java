package leveltally.server.voiding;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.LocalDate;
import leveltally.core.payments.PaymentId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.frame.Needs;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Paying a check once more. */
@RestController
@RequestMapping("/api/payments/{id}/reissue")
@Needs(Deed.READ)
class ReissueController {
    private final Reissuing reissuing;

    ReissueController(Reissuing reissuing) {
        this.reissuing = reissuing;
    }

    /** {@code ledgerDate} absent: the check date; {@code remitTo} and {@code way} absent: as the old one. */
    record ReissueAsked(
            @NotNull LocalDate checkDate,
            @Nullable LocalDate ledgerDate,
            @Nullable Long remitTo,
            @Nullable Long way,
            @NotNull @Size(max = 200) String reason) {}

    record ReissueMade(long batch) {}

    @GetMapping
    Reissuing.ReissueChoices choices(Actor by, @PathVariable long id) {
        by.mayDo(Deed.READ);
        return reissuing.choices(new PaymentId(id));
    }

    /** Answers with the batch that waits for approval. */
    @PostMapping
    @Needs(Deed.REISSUE)
    ReissueMade reissue(Actor by, @PathVariable long id, @Valid @RequestBody ReissueAsked wanted) {
        var once = new Reissuing.Once(
                wanted.checkDate(), wanted.ledgerDate(), wanted.remitTo(), wanted.way(), wanted.reason());
        return new ReissueMade(reissuing.reissue(by, new PaymentId(id), once).value());
    }
}
