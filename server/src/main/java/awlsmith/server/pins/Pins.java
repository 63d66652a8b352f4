package awlsmith.server.pins;

import awlsmith.server.clips.ClipView;
import awlsmith.server.clips.Clips;
import awlsmith.server.events.EventHub;
import awlsmith.server.problem.Refusal;
import java.time.Clock;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** Pins: dropped, named, moved, taken away. */
@Service
public class Pins {
    /** More than a sheet shows side by side. */
    private static final int MOST_PINS = 40;

    private static final int LONGEST_NAME = 60;
    /** Smallest side in source pixels; below, nothing can be judged. */
    private static final double LEAST_SIDE = 4;

    private static final double FARTHEST = 1 << 16;

    private final PinRepository pins;
    private final Clips clips;
    private final EventHub events;
    private final Clock clock;

    Pins(PinRepository pins, Clips clips, EventHub events, Clock clock) {
        this.pins = pins;
        this.clips = clips;
        this.events = events;
        this.clock = clock;
    }

    /** All pins of a clip after one of them changed. */
    public record Changed(UUID clipId, List<PinView> pins) {}

    public List<PinView> of(UUID clip) {
        clips.view(clip);
        return pins.of(clip);
    }

    public PinView view(UUID id) {
        return pins.find(id).orElseThrow(() -> Refusal.unknown("this pin"));
    }

    PinView add(UUID clip, @Nullable String name, int frame, double x, double y, double width, double height) {
        List<PinView> there = of(clip);
        if (there.size() >= MOST_PINS) {
            throw new Refusal(
                    Refusal.Kind.INVALID,
                    "this clip has " + MOST_PINS + " pins, which is the most; take one away first");
        }
        String shown = name == null ? "place " + (there.size() + 1) : name;
        var pin = checked(new PinView(UUID.randomUUID(), clip, shown, frame, x, y, width, height));
        pins.insert(pin, clock.instant());
        publish(clip);
        return pin;
    }

    /** @param changed with the place and name it shall have */
    PinView change(PinView changed) {
        PinView pin = checked(changed);
        pins.update(pin);
        publish(pin.clipId());
        return pin;
    }

    void remove(UUID id) {
        PinView pin = view(id);
        pins.delete(id);
        publish(pin.clipId());
    }

    private void publish(UUID clip) {
        events.publish("pins", new Changed(clip, pins.of(clip)));
    }

    private PinView checked(PinView pin) {
        ClipView clip = clips.view(pin.clipId());
        int frames = clip.frames() == null ? 0 : clip.frames();
        if (pin.frame() < 0 || pin.frame() >= frames) {
            throw new Refusal(
                    Refusal.Kind.INVALID,
                    "frame is " + pin.frame() + ", this clip has frames 0.." + Math.max(0, frames - 1));
        }
        String name = pin.name().replaceAll("\\p{Cntrl}+", " ").strip();
        if (name.isEmpty() || name.length() > LONGEST_NAME) {
            throw new Refusal(Refusal.Kind.INVALID, "a pin's name has 1 to " + LONGEST_NAME + " letters");
        }
        boolean sound = Double.isFinite(pin.x()) && Double.isFinite(pin.y());
        boolean sized = pin.width() >= LEAST_SIDE && pin.height() >= LEAST_SIDE;
        if (!sound
                || !sized
                || Math.abs(pin.x()) + pin.width() > FARTHEST
                || Math.abs(pin.y()) + pin.height() > FARTHEST) {
            throw new Refusal(
                    Refusal.Kind.INVALID,
                    "a pin is at least " + (int) LEAST_SIDE + " pixels wide and high and lies near the picture");
        }
        return new PinView(pin.id(), pin.clipId(), name, pin.frame(), pin.x(), pin.y(), pin.width(), pin.height());
    }
}
