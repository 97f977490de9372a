"""The grasses of fine turf, as data: key, common name, botanical name, season."""

from dataclasses import dataclass


@dataclass(frozen=True)
class Grass:
    """`cool` tells cool-season (C3) from warm-season (C4) grasses."""

    key: str
    name: str
    botanical: str
    cool: bool


GRASSES = {
    g.key: g
    for g in (
        Grass("creeping_bentgrass", "Creeping bentgrass", "Agrostis stolonifera", True),
        Grass("colonial_bentgrass", "Colonial bentgrass", "Agrostis capillaris", True),
        Grass("annual_bluegrass", "Annual bluegrass", "Poa annua", True),
        Grass("kentucky_bluegrass", "Kentucky bluegrass", "Poa pratensis", True),
        Grass("perennial_ryegrass", "Perennial ryegrass", "Lolium perenne", True),
        Grass("tall_fescue", "Tall fescue", "Schedonorus arundinaceus", True),
        Grass("fine_fescue", "Fine fescues", "Festuca spp.", True),
        Grass("bermudagrass", "Bermudagrass", "Cynodon spp.", False),
        Grass("zoysiagrass", "Zoysiagrass", "Zoysia spp.", False),
        Grass("st_augustinegrass", "St Augustinegrass", "Stenotaphrum secundatum", False),
        Grass("centipedegrass", "Centipedegrass", "Eremochloa ophiuroides", False),
        Grass("seashore_paspalum", "Seashore paspalum", "Paspalum vaginatum", False),
        Grass("buffalograss", "Buffalograss", "Bouteloua dactyloides", False),
        Grass("bahiagrass", "Bahiagrass", "Paspalum notatum", False),
        Grass("mixed", "Mixed sward", "", True),
    )
}
