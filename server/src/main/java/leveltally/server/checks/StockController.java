package leveltally.server.checks;

import jakarta.validation.Valid;
import leveltally.core.checks.SeriesId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.frame.Needs;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Boxes of numbered stock. */
@RestController
@RequestMapping("/api/series/{id}/stock")
@Needs(Deed.READ)
class StockController {
    private final StockRoom room;

    StockController(StockRoom room) {
        this.room = room;
    }

    record BoxWanted(long first, long last) {}

    @GetMapping
    StockView stock(Actor by, @PathVariable long id) {
        return room.view(by, new SeriesId(id));
    }

    @PostMapping
    @Needs(Deed.KEEP_STOCK)
    StockView receive(Actor by, @PathVariable long id, @Valid @RequestBody BoxWanted wanted) {
        room.receive(by, new SeriesId(id), wanted.first(), wanted.last());
        return room.view(by, new SeriesId(id));
    }

    @PostMapping("/{box}/open")
    @Needs(Deed.KEEP_STOCK)
    StockView open(Actor by, @PathVariable long id, @PathVariable long box) {
        room.open(by, new SeriesId(id), box);
        return room.view(by, new SeriesId(id));
    }
}
