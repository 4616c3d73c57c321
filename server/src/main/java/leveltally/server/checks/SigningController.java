package leveltally.server.checks;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import leveltally.core.checks.SeriesId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.frame.Needs;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Who signs the checks of a series. */
@RestController
@RequestMapping("/api/series/{id}")
@Needs(Deed.SET_SIGNING)
class SigningController {
    private final SeriesSigning signing;

    SigningController(SeriesSigning signing) {
        this.signing = signing;
    }

    record LimitsWanted(
            @NotNull @Size(max = 30) String most,
            @NotNull @Size(max = 30) String secondAbove) {}

    /** A PNG or SVG in base 64; empty to keep the picture and change its limit. */
    record SignatureWanted(
            @NotNull String content,
            @NotNull @Size(max = 30) String upTo) {}

    @PostMapping("/limits")
    @Needs(Deed.SET_SIGNING)
    void limit(Actor by, @PathVariable long id, @Valid @RequestBody LimitsWanted wanted) {
        signing.limit(by, new SeriesId(id), wanted.most(), wanted.secondAbove());
    }

    @PostMapping("/signature")
    @Needs(Deed.SET_SIGNING)
    void sign(Actor by, @PathVariable long id, @Valid @RequestBody SignatureWanted wanted) {
        signing.signBy(by, new SeriesId(id), wanted.content(), wanted.upTo());
    }

    @PostMapping("/signature/remove")
    @Needs(Deed.SET_SIGNING)
    void signByHand(Actor by, @PathVariable long id) {
        signing.signByHand(by, new SeriesId(id));
    }
}
