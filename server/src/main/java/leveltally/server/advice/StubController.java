package leveltally.server.advice;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.Objects;
import leveltally.core.Refusal;
import leveltally.core.payments.PaymentId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.frame.Needs;
import leveltally.server.printing.RunPages;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Stubs given again: marked copies on paper, or the list by mail; the checks and their numbers stay as they are. */
@RestController
@RequestMapping("/api/stubs")
@Needs(Deed.READ)
class StubController {
    private static final int MOST = 500;

    private final RunPages pages;
    private final Advices advices;

    StubController(RunPages pages, Advices advices) {
        this.pages = pages;
        this.advices = advices;
    }

    record StubsMailed(@NotEmpty @Size(max = MOST) List<@NotNull Long> payments) {}

    /** @param without the payees who were not told, because there is no address or the check is no payment any more */
    record StubsSent(int sent, List<String> without) {}

    @GetMapping(value = "/pdf", produces = MediaType.APPLICATION_PDF_VALUE)
    ResponseEntity<byte[]> pdf(Actor by, @RequestParam List<@Nullable Long> payments) {
        by.mayDo(Deed.READ);
        List<PaymentId> wanted = payments.stream()
                .filter(Objects::nonNull)
                .distinct()
                .map(PaymentId::new)
                .toList();
        if (wanted.isEmpty() || wanted.size() > MOST) {
            throw Refusal.invalidField(
                    "how-many", "payments", "Between 1 and " + MOST + " stubs are given again together. Select fewer.");
        }
        return ResponseEntity.ok()
                .header(HttpHeaders.CONTENT_DISPOSITION, "inline; filename=\"stubs-again.pdf\"")
                .body(pages.stubs(wanted));
    }

    @PostMapping("/mail")
    @Needs(Deed.MAIL_ADVICE)
    StubsSent mail(Actor by, @Valid @RequestBody StubsMailed wanted) {
        List<String> without = advices.again(
                by, wanted.payments().stream().distinct().map(PaymentId::new).toList());
        return new StubsSent((int) wanted.payments().stream().distinct().count() - without.size(), without);
    }
}
