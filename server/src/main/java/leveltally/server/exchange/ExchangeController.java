package leveltally.server.exchange;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.Instant;
import java.util.List;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.bankfiles.BankFiles;
import leveltally.server.frame.Needs;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** How files travel, which are on their way, and which came. */
@RestController
@RequestMapping("/api")
@Needs(Deed.READ)
class ExchangeController {
    private final Channels channels;
    private final Outgoing outgoing;
    private final Incoming incoming;
    private final Exchange exchange;

    ExchangeController(Channels channels, Outgoing outgoing, Incoming incoming, Exchange exchange) {
        this.channels = channels;
        this.outgoing = outgoing;
        this.incoming = incoming;
        this.exchange = exchange;
    }

    record SettledSending(boolean came) {}

    record ReadIncoming(@NotNull @Size(max = 300) String gap) {}

    record SetAsideIncoming(@NotNull @Size(max = 300) String why) {}

    record Fetched(int came) {}

    /** @param channel null where people carry its files */
    record ChannelSetting(Channels.@Nullable ChannelView channel, Channels.ChannelChoices choices) {}

    @GetMapping("/bank-accounts/{id}/channel")
    ChannelSetting channel(Actor by, @PathVariable long id) {
        return new ChannelSetting(channels.view(by, new BankAccountId(id)), channels.choices());
    }

    @PostMapping("/bank-accounts/{id}/channel")
    @Needs(Deed.SET_BANK_ACCOUNT)
    void set(Actor by, @PathVariable long id, @Valid @RequestBody Channels.WantedChannel wanted) {
        channels.set(by, new BankAccountId(id), wanted);
    }

    /** Reaches for the bank by what is typed. */
    @PostMapping("/bank-accounts/{id}/channel/attempt")
    @Needs(Deed.SET_BANK_ACCOUNT)
    Channels.ChannelTried attempt(Actor by, @PathVariable long id, @Valid @RequestBody Channels.WantedChannel wanted) {
        return channels.attempt(by, new BankAccountId(id), wanted);
    }

    /** All that travels of an account. */
    @GetMapping("/bank-accounts/{id}/exchange")
    Exchange.ExchangeView of(Actor by, @PathVariable long id) {
        return exchange.of(by, new BankAccountId(id));
    }

    /** What the bank laid for us, a page of it. */
    @GetMapping("/bank-accounts/{id}/exchange/incoming")
    List<Incoming.IncomingView> incoming(Actor by, @PathVariable long id, @RequestParam @Nullable Long after) {
        return incoming.of(by, new BankAccountId(id), after);
    }

    /** Looks at once whether something lies there. */
    @PostMapping("/bank-accounts/{id}/exchange/look")
    @Needs(Deed.RECORD_CLEARING)
    Fetched look(Actor by, @PathVariable long id) {
        return new Fetched(exchange.look(by, new BankAccountId(id), Instant.now()));
    }

    /** Reads whatever came and waits. */
    @PostMapping("/bank-accounts/{id}/exchange/read")
    @Needs(Deed.RECORD_CLEARING)
    List<Incoming.IncomingRead> readAll(Actor by, @PathVariable long id) {
        return incoming.readAll(by, new BankAccountId(id));
    }

    record DecisionsTold(long file) {}

    /** Tells the bank which checks it asks about are paid, and which returned. */
    @PostMapping("/bank-accounts/{id}/exchange/decisions")
    @Needs(Deed.MAKE_BANK_FILE)
    DecisionsTold tellDecisions(Actor by, @PathVariable long id) {
        return new DecisionsTold(exchange.tellDecisions(by, new BankAccountId(id)));
    }

    @PostMapping("/bank-files/{id}/send")
    @Needs(Deed.MAKE_BANK_FILE)
    void send(Actor by, @PathVariable long id) {
        outgoing.send(by, id);
    }

    @PostMapping("/bank-files/{id}/send-again")
    @Needs(Deed.MAKE_BANK_FILE)
    void again(Actor by, @PathVariable long id) {
        outgoing.again(by, id);
    }

    @PostMapping("/bank-files/{id}/settle")
    @Needs(Deed.MAKE_BANK_FILE)
    void settle(Actor by, @PathVariable long id, @RequestBody SettledSending said) {
        outgoing.settle(by, id, said.came());
    }

    @PostMapping("/bank-incoming/{id}/read")
    @Needs(Deed.RECORD_CLEARING)
    Incoming.IncomingRead read(Actor by, @PathVariable long id, @Valid @RequestBody ReadIncoming said) {
        return incoming.read(by, id, said.gap());
    }

    @PostMapping("/bank-incoming/{id}/set-aside")
    @Needs(Deed.RECORD_CLEARING)
    void setAside(Actor by, @PathVariable long id, @Valid @RequestBody SetAsideIncoming said) {
        incoming.setAside(by, id, said.why());
    }

    @PostMapping("/bank-incoming/{id}/take-back")
    @Needs(Deed.RECORD_CLEARING)
    void takeBack(Actor by, @PathVariable long id) {
        incoming.takeBack(by, id);
    }

    @GetMapping("/bank-incoming/{id}/content")
    @Needs(Deed.RECORD_CLEARING)
    ResponseEntity<byte[]> content(Actor by, @PathVariable long id) {
        BankFiles.Content content = incoming.content(by, id);
        return ResponseEntity.ok()
                .header("Content-Type", "application/octet-stream")
                .header(
                        "Content-Disposition",
                        org.springframework.http.ContentDisposition.attachment()
                                .filename(content.name(), java.nio.charset.StandardCharsets.UTF_8)
                                .build()
                                .toString())
                .body(content.bytes());
    }
}
