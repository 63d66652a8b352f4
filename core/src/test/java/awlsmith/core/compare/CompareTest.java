package awlsmith.core.compare;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Region;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.Placement;
import awlsmith.core.pipeline.Work;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** Comparing, on pictures whose differences are known. */
class CompareTest {
    private static final Format GREY =
            new Format(96, 80, Chroma.GREY, Siting.LEFT, 8, ColourTags.UNKNOWN, Rational.ONE);

    private static Plane flat(int width, int height, float value) {
        return Plane.of(width, height).fill(value);
    }

    private static Plane noisy(Plane clean, double sigma, long seed) {
        var random = new Random(seed);
        Plane out = Plane.of(clean.width(), clean.height());
        for (int i = 0; i < out.data().length; i++) {
            out.data()[i] = clean.data()[i] + (float) (sigma / 255 * random.nextGaussian());
        }
        return out;
    }

    private static Frame frame(Format format, Plane... planes) {
        Frame frame = Frame.blank(format, format.whole(), 0, Rational.ZERO, new PlanePool(0));
        for (int p = 0; p < planes.length; p++) {
            for (int y = 0; y < planes[p].height(); y++) {
                for (int x = 0; x < planes[p].width(); x++) {
                    frame.plane(p).set(x, y, planes[p].at(x, y));
                }
            }
        }
        return frame;
    }

    /** Blobs of many sizes, as seen by a camera that looks so far to the right. */
    private static Plane scene(double x0, double y0) {
        Plane out = Plane.of(160, 120);
        for (int y = 0; y < 120; y++) {
            for (int x = 0; x < 160; x++) {
                double u = x + x0;
                double v = y + y0;
                out.set(x, y, (float) (0.5
                        + 0.2 * Math.sin(u * 0.09 + 1.7 * Math.sin(u * 0.031))
                        + 0.2 * Math.sin(v * 0.11 + 1.3 * Math.sin(v * 0.043))));
            }
        }
        return out;
    }

    @Test
    void aPanIsSteadyAndAJerkIsHalfItsWayOff() {
        assertThat(Unsteadiness.of(scene(0, 0), scene(3, 1), scene(6, 2))).isCloseTo(0, within(0.2));
        assertThat(Unsteadiness.of(scene(0, 0), scene(4, 0), scene(0, 0))).isCloseTo(4, within(0.2));
        assertThat(Unsteadiness.of(scene(0, 0), scene(2, 3), scene(2, 3)))
                .as("half the way to where it stays")
                .isCloseTo(Math.hypot(2, 3) / 2, within(0.2));
        assertThat(Unsteadiness.of(flat(160, 120, 0.5f), flat(160, 120, 0.5f), flat(160, 120, 0.5f)))
                .as("nothing to tell motion by")
                .isNaN();
    }

    @Test
    void lightIsTheMeanOfLuma() {
        Plane half = noisy(flat(64, 64, 0.25f), 4, 3);
        assertThat(Figures.of(half, half, 1).light()).isCloseTo(0.25, within(0.002));
        assertThat(Figures.mean(List.of(
                                Figures.of(half, half, 1), Figures.of(flat(64, 64, 0.75f), flat(64, 64, 0.75f), 1)))
                        .light())
                .isCloseTo(0.5, within(0.002));
    }

    // --- the source's scale ---

    /** A picture enlarged by repeating every pixel comes back as it was, wherever it was put and whatever part is asked. */
    @Test
    void whatWasEnlargedComesBackToTheSourcesGrid() {
        Plane source = noisy(flat(96, 80, 0.5f), 40, 1);
        int left = 6;
        int top = 4;
        Format large = GREY.withSize(96 * 3 + left, 80 * 3 + top, Rational.ONE);
        Plane enlarged = flat(large.width(), large.height(), 0);
        for (int y = 0; y < 240; y++) {
            for (int x = 0; x < 288; x++) {
                enlarged.set(x + left, y + top, source.at(x / 3, y / 3));
            }
        }
        var scale = new SourceScale(large, new Placement(left, top, 288, 240), 96, 80);
        Region part = new Region(10, 20, 40, 30);
        Region needed = scale.needs(part);
        Frame whole = frame(large, enlarged);
        Plane back = scale.luma(whole.cut(needed), part, new PlanePool(0), Work.alone());
        assertThat(scale.factor()).isEqualTo(3);
        for (int y = 0; y < 30; y++) {
            for (int x = 0; x < 40; x++) {
                assertThat(back.at(x, y)).isCloseTo(source.at(x + 10, y + 20), within(1e-5f));
            }
        }
    }

    @Test
    void whatWasCroppedAwayIsNotSeen() {
        // the source's columns 20..60 enlarged twice
        var scale = new SourceScale(GREY.withSize(80, 160, Rational.ONE), new Placement(-40, 0, 192, 160), 96, 80);
        assertThat(scale.seen(new SourceScale.Rect(0, 0, 96, 80))).isEqualTo(new SourceScale.Rect(20, 0, 40, 80));
        assertThat(scale.seen(new SourceScale.Rect(0, 0, 10, 80)).isEmpty()).isTrue();
    }

    /** BT.709-6 item 3.2: luma of R'G'B' is 0.2126 R' + 0.7152 G' + 0.0722 B'. */
    @Test
    void picturesWithoutLumaAreWeighed() {
        Format rgb = new Format(64, 48, Chroma.RGB, Siting.LEFT, 8, ColourTags.UNKNOWN, Rational.ONE);
        Frame frame = frame(rgb, flat(64, 48, 0.9f), flat(64, 48, 0.2f), flat(64, 48, 0.5f));
        float luma = 0.2126f * 0.9f + 0.7152f * 0.2f + 0.0722f * 0.5f;
        assertThat(Luma.of(frame).at(5, 7)).isCloseTo(luma, within(1e-5f));
        var scale = new SourceScale(rgb, new Placement(0, 0, 64, 48), 64, 48);
        Plane same = scale.luma(frame, rgb.whole(), new PlanePool(0), Work.alone());
        assertThat(same.at(40, 40)).isCloseTo(luma, within(1e-5f));
    }

    // --- figures ---

    @Test
    void figuresOfAnEnlargedPictureAreThoseOfItsSource() {
        Plane source = noisy(stripes(256, 256, 24), 6, 2);
        Plane large = Plane.of(512, 512);
        for (int y = 0; y < 512; y++) {
            for (int x = 0; x < 512; x++) {
                large.set(x, y, source.at(x / 2, y / 2));
            }
        }
        Figures before = Figures.of(source, source, 1);
        Figures after = Figures.of(source, large, 2);
        assertThat(after.noise()).isEqualTo(before.noise()).isCloseTo(6, within(0.9));
        // an edge one large pixel wide is half a source pixel wide
        assertThat(after.edges()).isCloseTo(0.5, within(0.01));
        assertThat(Figures.mean(java.util.List.of(before, after)).noise()).isEqualTo(before.noise());
    }

    private static Plane stripes(int width, int height, int period) {
        Plane plane = Plane.of(width, height);
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                plane.set(x, y, (x / period) % 2 == 0 ? 0.3f : 0.7f);
            }
        }
        return plane;
    }

    /** Noise that is new in every frame is restlessness of just its strength; noise that stands still is none. */
    @Test
    void flickerIsWhatChangesWhereNothingMoves() {
        Plane still = stripes(160, 120, 20);
        Plane fixed = noisy(still, 5, 3);
        assertThat(Flicker.of(still, still, fixed, fixed)).isZero();
        assertThat(Flicker.of(still, still, noisy(still, 5, 4), noisy(still, 5, 5)))
                .isCloseTo(5, within(0.3));
        assertThat(Flicker.of(flat(7, 7, 0), flat(7, 7, 0), flat(7, 7, 0), flat(7, 7, 0)))
                .isNaN();
    }

    // --- telling places ---

    private static Plane textured() {
        Plane plane = flat(256, 192, 0.5f);
        for (int y = 0; y < 192; y++) {
            for (int x = 0; x < 256; x++) {
                if (x > 160 && y > 100) {
                    // fine grain of a surface, the same in every frame
                    plane.set(x, y, 0.5f + 0.03f * (((x * 7 + y * 13) % 5) - 2));
                } else if (x < 80) {
                    plane.set(x, y, x < 40 ? 0.3f : 0.75f);
                }
            }
        }
        return plane;
    }

    private static java.util.List<TellingPlaces.Place> found(Plane treated, TellingPlaces.Why why) {
        return TellingPlaces.of(textured(), treated, 2).stream()
                .filter(place -> place.why() == why)
                .toList();
    }

    @Test
    void anUntouchedPictureHasNoHarm() {
        assertThat(TellingPlaces.of(textured(), textured(), 2))
                .allSatisfy(place -> assertThat(place.why().isHarm()).isFalse());
    }

    @Test
    void lostTextureIsFoundWhereItWas() {
        Plane treated = textured();
        for (int y = 100; y < 192; y++) {
            for (int x = 160; x < 256; x++) {
                treated.set(x, y, 0.5f);
            }
        }
        var places = found(treated, TellingPlaces.Why.FLATTENED);
        assertThat(places).isNotEmpty();
        assertThat(places.getFirst().x()).isBetween(160, 255);
        assertThat(places.getFirst().y()).isBetween(100, 191);
        assertThat(found(treated, TellingPlaces.Why.HALO)).isEmpty();
    }

    @Test
    void aHaloIsFoundBesideItsEdge() {
        Plane treated = textured();
        for (int y = 0; y < 100; y++) {
            treated.set(39, y, 0.3f - 0.08f);
            treated.set(40, y, 0.75f + 0.08f);
        }
        var places = found(treated, TellingPlaces.Why.HALO);
        assertThat(places).isNotEmpty();
        assertThat(places.getFirst().x()).isBetween(40 - 16, 40 + 16);
        assertThat(places.getFirst().amount()).isCloseTo(255 * 0.08, within(1.0));
    }

    @Test
    void linesInventedInASkyAreFound() {
        Plane treated = textured();
        for (int y = 30; y < 60; y++) {
            for (int x = 110; x < 150; x++) {
                treated.set(x, y, 0.5f + (x % 3 == 0 ? 0.03f : -0.015f));
            }
        }
        var places = found(treated, TellingPlaces.Why.NEW_EDGES);
        assertThat(places).isNotEmpty();
        assertThat(places.getFirst().x()).isBetween(105, 155);
        assertThat(places.getFirst().y()).isBetween(25, 65);
    }

    /** Letters against a stripe: one way alone is no detail. And in the dark nobody looks. */
    @Test
    void detailIsFoundWhereEdgesGoSeveralWays() {
        Plane plane = flat(256, 192, 0.5f);
        for (int y = 0; y < 192; y++) {
            for (int x = 0; x < 256; x++) {
                if (x < 100) {
                    plane.set(x, y, x / 8 % 2 == 0 ? 0.3f : 0.7f);
                } else if (x >= 180 && y >= 60 && y < 100) {
                    plane.set(x, y, (x / 4 + y / 4) % 2 == 0 ? 0.3f : 0.7f);
                } else if (y > 150) {
                    plane.set(x, y, (x / 4 + y / 4) % 2 == 0 ? 0f : 0.1f);
                }
            }
        }
        var places = TellingPlaces.of(plane, plane, 2).stream()
                .filter(place -> place.why() == TellingPlaces.Why.DETAIL)
                .toList();
        assertThat(places).isNotEmpty();
        assertThat(places).allSatisfy(place -> {
            assertThat(place.x()).isGreaterThan(170);
            assertThat(place.y()).isBetween(50, 110);
        });
    }

    @Test
    void placesOfOneKindLieApart() {
        var places = TellingPlaces.of(textured(), noisy(textured(), 12, 9), 4);
        for (var a : places) {
            for (var b : places) {
                if (a != b && a.why() == b.why()) {
                    assertThat(Math.max(Math.abs(a.x() - b.x()), Math.abs(a.y() - b.y())))
                            .isGreaterThanOrEqualTo(3 * TellingPlaces.BLOCK);
                }
            }
        }
    }

    // --- scopes ---

    /**
     * The 100/0/75/0 bars' colours in code values: ITU-R BT.471-1 for the bars, their values for 8-bit video from the equations of
     * BT.601-7 section 2.5: 75 % blue is Y 35, Cb 212, Cr 114; 75 % red Y 65, Cb 100, Cr 212; white Y 180 at 75 %.
     */
    @Test
    void barsStandWhereTheRecommendationPutsThem() {
        Format format = new Format(64, 32, Chroma.S444, Siting.LEFT, 8, ColourTags.UNKNOWN, Rational.ONE);
        int[][] bars = {{180, 128, 128}, {35, 212, 114}, {65, 100, 212}};
        for (int[] bar : bars) {
            Frame frame = frame(
                    format,
                    flat(64, 32, (bar[0] - 16) / 219f),
                    flat(64, 32, (bar[1] - 128) / 224f),
                    flat(64, 32, (bar[2] - 128) / 224f));
            Scopes scopes = Scopes.of(frame, 320);
            assertThat(scopes.histogram()[bar[0]]).isEqualTo(64 * 32);
            assertThat(scopes.columns()).isEqualTo(64);
            assertThat(scopes.waveform()[5 * Scopes.CODES + bar[0]]).isEqualTo(32);
            assertThat(scopes.vectors()[bar[2] * Scopes.CODES + bar[1]]).isEqualTo(64 * 32);
            assertThat(scopes.below() + scopes.above()).isZero();
        }
    }

    @Test
    void whatLiesBeyondBlackAndWhiteIsCounted() {
        Plane luma = flat(96, 80, 0.5f);
        luma.set(0, 0, -0.02f);
        luma.set(1, 0, 1.03f);
        luma.set(2, 0, 1.09f);
        Scopes scopes = Scopes.of(frame(GREY, luma), 10);
        assertThat(scopes.below()).isEqualTo(1);
        assertThat(scopes.above()).isEqualTo(2);
        assertThat(scopes.vectors()).isEmpty();
        assertThat(scopes.columns()).isEqualTo(10);
        assertThat(java.util.Arrays.stream(scopes.waveform()).sum()).isEqualTo(96 * 80);
    }
}
