package leveltally.server.reports;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import leveltally.core.payments.PaymentId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.frame.Needs;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Years that were reported, and what was undone of them later. */
@RestController
@RequestMapping("/api/earlier-years")
@Needs(Deed.READ)
class EarlierYearController {
    private final EarlierYears years;

    EarlierYearController(EarlierYears years) {
        this.years = years;
    }

    record YearChosen(
            @NotEmpty @Size(max = 1_000) List<@NotNull Long> payments,
            boolean falls,
            @NotNull @Size(max = 300) String reason) {}

    @GetMapping
    List<EarlierYear> changed(Actor by, @RequestParam int year) {
        return years.of(by, year);
    }

    @PostMapping
    @Needs(Deed.CHOOSE_YEAR)
    void choose(Actor by, @Valid @RequestBody YearChosen wanted) {
        years.choose(by, wanted.payments().stream().map(PaymentId::new).toList(), wanted.falls(), wanted.reason());
    }
}
