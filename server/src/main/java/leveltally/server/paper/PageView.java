package leveltally.server.paper;

import java.util.ArrayList;
import java.util.List;
import leveltally.core.paper.Box;
import leveltally.core.paper.Page;

/** A laid-out page for the browser to draw: the same boxes the PDF draws. */
public record PageView(
        double width,
        double height,
        List<Box.Text> texts,
        List<Box.Rule> rules,
        List<Box.Frame> frames,
        List<Box.Drawn> pictures) {

    public static PageView of(Page page) {
        List<Box.Text> texts = new ArrayList<>();
        List<Box.Rule> rules = new ArrayList<>();
        List<Box.Frame> frames = new ArrayList<>();
        List<Box.Drawn> pictures = new ArrayList<>();
        for (Box box : page.boxes()) {
            if (box instanceof Box.Text text) {
                texts.add(text);
            } else if (box instanceof Box.Rule rule) {
                rules.add(rule);
            } else if (box instanceof Box.Frame frame) {
                frames.add(frame);
            } else if (box instanceof Box.Drawn drawn) {
                pictures.add(drawn);
            }
        }
        return new PageView(page.width(), page.height(), texts, rules, frames, pictures);
    }
}
