package leveltally.server.voiding;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.LocalDate;
import java.util.List;
import leveltally.core.payments.PaymentId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.frame.Needs;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Stopping checks, writing down what the bank said to it, and asking to have it lifted. */
@RestController
@RequestMapping("/api/stops")
@Needs(Deed.READ)
class StopController {
    private final Stops stops;

    StopController(Stops stops) {
        this.stops = stops;
    }

    record StopAsked(
            @NotEmpty @Size(max = Wanted.MOST) List<@NotNull Long> payments,
            @NotNull @Size(max = 200) String reason) {}

    /** {@code until} absent: it never ends. */
    record StopConfirmed(
            @NotNull LocalDate on,
            @NotNull @Size(max = 200) String reference,
            @Nullable LocalDate until) {}

    record StopLifted(@NotNull @Size(max = 200) String reason) {}

    @PostMapping
    @Needs(Deed.STOP_PAYMENT)
    void stop(Actor by, @Valid @RequestBody StopAsked wanted) {
        stops.stop(by, wanted.payments().stream().distinct().map(PaymentId::new).toList(), wanted.reason());
    }

    @PostMapping("/{payment}/confirm")
    @Needs(Deed.STOP_PAYMENT)
    void confirm(Actor by, @PathVariable long payment, @Valid @RequestBody StopConfirmed said) {
        stops.confirm(by, new PaymentId(payment), said.on(), said.reference(), said.until());
    }

    /** Answers with what a second person is asked. */
    @PostMapping("/{payment}/lift")
    @Needs(Deed.STOP_PAYMENT)
    long lift(Actor by, @PathVariable long payment, @Valid @RequestBody StopLifted wanted) {
        return stops.askToLift(by, new PaymentId(payment), wanted.reason());
    }
}
