package awlsmith.core.recipe;

import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Rational;
import awlsmith.core.pipeline.Timing;
import awlsmith.core.pipeline.Work;
import awlsmith.core.retime.BlendFinder;
import awlsmith.core.retime.Blending;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;

/** Finds what frames were mixed from. @param rates that are thought of */
record FindBlends(List<Rational> rates) implements Analysis<Optional<Blending>> {
    FindBlends {
        rates = List.copyOf(rates);
    }

    @Override
    public String id() {
        return "blends/1 " + rates.stream().map(Rational::toString).collect(Collectors.joining(" "));
    }

    @Override
    public String doing() {
        return "looking for mixed frames";
    }

    @Override
    public Fold<Optional<Blending>> begin(Format input, Timing times) {
        var finder = new BlendFinder(times.mean(), rates);
        return new Fold<>() {
            @Override
            public void see(Frame frame, Work work) {
                finder.see(frame.light());
            }

            @Override
            public Optional<Blending> found() {
                return finder.found();
            }
        };
    }

    @Override
    public Map<String, Object> toTree(Optional<Blending> found) {
        return found.<Map<String, Object>>map(blending -> Map.of(
                        "rate",
                        blending.rate().toString(),
                        "offset",
                        blending.offset().toString()))
                .orElse(Map.of());
    }

    @Override
    public Optional<Blending> fromTree(Map<?, ?> tree) {
        if (tree.isEmpty()) {
            return Optional.empty();
        }
        if (!(tree.get("rate") instanceof String rate) || !(tree.get("offset") instanceof String offset)) {
            throw new IllegalArgumentException("what frames were mixed from has a rate and an offset");
        }
        return Optional.of(new Blending(Rational.parse(rate), Rational.parse(offset)));
    }
}
