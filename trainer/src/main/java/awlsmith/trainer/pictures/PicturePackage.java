package awlsmith.trainer.pictures;

import java.util.List;

/**
 * A Debian package with pictures to learn from.
 *
 * @param name the package
 * @param licence what its debian/copyright says of the pictures used, read there and not remembered
 * @param pictures the ones used, by the end of their path; illustrations and rendered backgrounds are left out
 */
public record PicturePackage(String name, String licence, List<String> pictures) {

    /** Pictures. The last of each package's list is held out for validation, whole. */
    public static List<PicturePackage> photographs() {
        return List.of(
                new PicturePackage(
                        "lomiri-wallpapers-16.04",
                        "CC-BY-4.0, CC-BY-SA-4.0 or CC0-1.0, per picture",
                        List.of(
                                "Bridge_by_Sander_Klootwijk.jpg",
                                "Dragonfly_by_Bolly.jpg",
                                "Picture_0B_by_freespace.jpg",
                                "Picture_1A_by_freespace.jpg",
                                "Wine_by_Jakkub_Mede.jpg",
                                "aitzgorri_by_Aitzol_Berasategi.jpg",
                                "free_by_Peter_Nerlich.jpg",
                                "friends_by_Aitzol_Berasategi.jpg",
                                "greentock_by_Peter_Nerlich.jpg",
                                "seeding_by_Clements_Engelhardt.jpg",
                                "sunset_by_Aitzol_Berasategi.jpg",
                                "umang_by_Abhishek_Mudgal.jpg",
                                "life_by_Aitzol_Berasategi.jpg",
                                "picosdeeuropa_by_Aitzol_Berasategi.jpg")),
                new PicturePackage(
                        "lomiri-wallpapers-20.04",
                        "CC-BY-SA-3.0",
                        List.of("Fossa_by_Jasper_Roks.jpg", "Kleiber_by_Lukas_Baubkus.jpg")),
                new PicturePackage(
                        "mate-backgrounds",
                        "GPL-2+",
                        List.of(
                                "nature/Aqua.jpg",
                                "nature/Dune.jpg",
                                "nature/FreshFlower.jpg",
                                "nature/Garden.jpg",
                                "nature/GreenMeadow.jpg",
                                "nature/LadyBird.jpg",
                                "nature/Storm.jpg",
                                "nature/TwoWings.jpg",
                                "nature/Wood.jpg",
                                "nature/YellowFlower.jpg",
                                "nature/RainDrops.jpg")),
                new PicturePackage(
                        "plasma-workspace-wallpapers",
                        "GPL-2+",
                        List.of(
                                "BytheWater/contents/images/2560x1600.jpg",
                                "ColdRipple/contents/images/2560x1600.jpg",
                                "ColorfulCups/contents/images/2560x1600.jpg",
                                "FallenLeaf/contents/images/2560x1600.jpg",
                                "Grey/contents/images/2560x1600.jpg",
                                "Kite/contents/images/2560x1600.jpg",
                                "OneStandsOut/contents/images/2560x1600.jpg",
                                "Path/contents/images/2560x1600.jpg",
                                "EveningGlow/contents/images/2560x1600.jpg")));
    }

    boolean heldOut(String picture) {
        return picture.equals(pictures.getLast());
    }
}
