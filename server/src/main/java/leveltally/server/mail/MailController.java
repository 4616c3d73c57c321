package leveltally.server.mail;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.frame.Needs;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** What was told to whom by mail, and what could not be. */
@RestController
@RequestMapping("/api/mail")
@Needs(Deed.READ)
class MailController {
    private final MailRows rows;
    private final Outbox outbox;

    MailController(MailRows rows, Outbox outbox) {
        this.rows = rows;
        this.outbox = outbox;
    }

    /** The newest mails, those in trouble first. */
    @GetMapping
    List<MailView> list(@RequestParam(defaultValue = "EVERYBODY") MailRows.Whose whose) {
        return rows.newest(whose);
    }

    record CameBack(@NotNull @Size(max = 300) String why) {}

    /** Advice that was sent came back. */
    @PostMapping("/{id}/returned")
    @Needs(Deed.MAIL_ADVICE)
    void returned(Actor by, @PathVariable long id, @Valid @RequestBody CameBack wanted) {
        outbox.returned(by, id, wanted.why());
    }

    @PostMapping("/{id}/again")
    @Needs(Deed.RETRY_MAIL)
    void again(Actor by, @PathVariable long id) {
        outbox.again(by, id);
    }
}
