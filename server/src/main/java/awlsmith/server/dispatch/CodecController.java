package awlsmith.server.dispatch;

import awlsmith.core.plan.Codec;
import awlsmith.core.plan.Codecs;
import awlsmith.core.plan.Coder;
import awlsmith.core.plan.Container;
import awlsmith.core.plan.Sound;
import awlsmith.core.plan.Subtitles;
import awlsmith.core.plan.Taking;
import awlsmith.core.recipe.Param;
import awlsmith.media.HardwareCoders;
import awlsmith.server.steps.ParamDescription;
import java.util.Arrays;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;

/** Every codec that can be sent out in, with what can be set: the dialog of sending out follows from these. */
@RestController
class CodecController {
    /** @param containers the usual one first; @param qualities rate factors that span what is chosen among, the most usual first */
    record CodecDescription(
            String id,
            String label,
            String purpose,
            List<ContainerDescription> containers,
            boolean lossless,
            boolean transparency,
            List<Integer> qualities,
            List<ParamDescription> params) {

        static CodecDescription of(Codec codec) {
            return new CodecDescription(
                    codec.id(),
                    codec.label(),
                    codec.purpose(),
                    codec.containers().stream()
                            .map(one -> ContainerDescription.of(codec, one))
                            .toList(),
                    codec.isLossless(),
                    codec.holdsAlpha(),
                    codec.qualities(),
                    codec.params().stream()
                            .flatMap(param -> described(codec, param))
                            .toList());
        }

        /** What codes is a question where this machine has more than its cores for it. */
        private static Stream<ParamDescription> described(Codec codec, Param param) {
            if (!(param instanceof Param.Choice choice) || !param.key().equals(Codec.CODER)) {
                return Stream.of(ParamDescription.of(param));
            }
            Set<String> there = HardwareCoders.of(codec).stream().map(Coder::id).collect(Collectors.toSet());
            return there.size() == 1 ? Stream.empty() : Stream.of(ParamDescription.of(choice.among(there)));
        }
    }

    /** @param ending of its files; @param taking which frames go into it; @param sounds how sound may stand in it, the usual way first; @param subtitles what may become of them */
    record ContainerDescription(
            String ending, String label, Taking taking, List<WayDescription> sounds, List<WayDescription> subtitles) {
        static ContainerDescription of(Codec codec, Container container) {
            return new ContainerDescription(
                    container.ending(),
                    container.label(),
                    codec.taking(container),
                    Arrays.stream(Sound.values())
                            .filter(container::holds)
                            .filter(sound -> sound != Sound.NONE || codec.taking(container) != Taking.SOUND)
                            .map(sound -> new WayDescription(sound.id(), sound.label(), sound.effect()))
                            .toList(),
                    codec.taking(container) == Taking.ALL
                            ? Arrays.stream(Subtitles.values())
                                    .map(one -> new WayDescription(one.id(), one.label(), one.effect()))
                                    .toList()
                            : List.of());
        }
    }

    record WayDescription(String id, String label, String effect) {}

    @GetMapping("/api/codecs")
    List<CodecDescription> codecs() {
        return Codecs.all().stream().map(CodecDescription::of).toList();
    }
}
