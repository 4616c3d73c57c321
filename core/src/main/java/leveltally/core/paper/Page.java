package leveltally.core.paper;

import java.util.List;

/** One page as positioned boxes; whoever draws it, on paper or on a screen, draws these. */
public record Page(double width, double height, List<Box> boxes) {
    public Page {
        boxes = List.copyOf(boxes);
    }
}
