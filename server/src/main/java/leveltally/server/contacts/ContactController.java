package leveltally.server.contacts;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;
import leveltally.core.Refusal;
import leveltally.core.contacts.ContactLetter;
import leveltally.core.contacts.Dormancy;
import leveltally.core.contacts.How;
import leveltally.core.payments.PaymentId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.frame.Needs;
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

/** Checks that were not presented, and asking about them. */
@RestController
@RequestMapping("/api/stale")
@Needs(Deed.READ)
class ContactController {
    private static final int MOST = 500;

    private final StaleChecks checks;
    private final Contacts contacts;
    private final Unclaimed unclaimed;

    ContactController(StaleChecks checks, Contacts contacts, Unclaimed unclaimed) {
        this.unclaimed = unclaimed;
        this.checks = checks;
        this.contacts = contacts;
    }

    record ContactNoted(
            @NotEmpty @Size(max = MOST) List<@NotNull Long> payments,
            @NotNull How how,
            @NotNull LocalDate on,
            @NotNull @Size(max = 300) String note) {}

    record ContactMailed(@NotEmpty @Size(max = MOST) List<@NotNull Long> payments) {}

    /** @param without the payees who were not told, because no mail address is known or the check was not printed here */
    record ContactsSent(int sent, List<String> without) {}

    /** @param marks what can stand in braces, with what it becomes; ignored where it is sent */
    record LetterView(
            @NotNull @Size(max = 400) String subject,
            @NotNull @Size(max = 8_000) String text,
            @Nullable Map<String, String> marks) {}

    /** @param days outstanding for more than; absent takes the company's policy */
    @GetMapping
    StaleView stale(Actor by, @RequestParam(required = false) @Nullable Integer days) {
        return checks.longerThan(by, days == null ? -1 : days);
    }

    @PostMapping("/contacts")
    @Needs(Deed.CONTACT_PAYEE)
    void note(Actor by, @Valid @RequestBody ContactNoted wanted) {
        contacts.note(by, ids(wanted.payments()), wanted.how(), wanted.on(), wanted.note());
    }

    @PostMapping("/mail")
    @Needs(Deed.CONTACT_PAYEE)
    ContactsSent mail(Actor by, @Valid @RequestBody ContactMailed wanted) {
        List<PaymentId> ids = ids(wanted.payments());
        List<String> without = contacts.mail(by, ids);
        return new ContactsSent(ids.size() - without.size(), without);
    }

    @GetMapping(value = "/letters", produces = MediaType.APPLICATION_PDF_VALUE)
    ResponseEntity<byte[]> letters(Actor by, @RequestParam List<@Nullable Long> payments) {
        List<PaymentId> wanted = ids(payments);
        if (wanted.size() > MOST) {
            throw Refusal.invalidField(
                    "how-many", "payments", "At most " + MOST + " letters are written together. Select fewer.");
        }
        return ResponseEntity.ok()
                .header(HttpHeaders.CONTENT_DISPOSITION, "inline; filename=\"letters.pdf\"")
                .body(contacts.pages(by, wanted));
    }

    @GetMapping("/letter")
    LetterView letter(Actor by) {
        by.mayDo(Deed.READ);
        ContactLetter letter = contacts.letter();
        return new LetterView(letter.subject(), letter.text(), new TreeMap<>(ContactLetter.MARKS));
    }

    @PostMapping("/letter")
    @Needs(Deed.CHANGE_LETTER)
    void changeLetter(Actor by, @Valid @RequestBody LetterView wanted) {
        contacts.changeLetter(by, new ContactLetter(wanted.subject(), wanted.text()));
    }

    /** After how many years each state takes what is unclaimed, a line each. */
    record DormancyView(@NotNull @Size(max = 20_000) String text) {}

    @GetMapping("/dormancy")
    DormancyView dormancy(Actor by) {
        by.mayDo(Deed.READ);
        return new DormancyView(unclaimed.dormancy().typed());
    }

    @PostMapping("/dormancy")
    @Needs(Deed.CHANGE_LETTER)
    void keepDormancy(Actor by, @Valid @RequestBody DormancyView wanted) {
        unclaimed.keep(by, Dormancy.read(wanted.text()));
    }

    private static List<PaymentId> ids(List<@Nullable Long> payments) {
        return payments.stream()
                .filter(Objects::nonNull)
                .distinct()
                .map(PaymentId::new)
                .toList();
    }
}
