// Tiles of point clouds.

#include "core/derive/evaluation.h"
#include "core/objects/cloud.h"
#include "core/survey/cloud_tiles.h"

namespace erdwerk::derive {

void work(Evaluation& evaluation, ObjectId id, const Cloud& cloud) {
    if (!cloud.cloud) return;
    evaluation.out.clouds[id] = evaluation.remembered<survey::CloudTiles>(
        "tiles", id, {cloud.cloud}, {}, [&] { return survey::CloudTiles(*cloud.cloud); });
}

}  // namespace erdwerk::derive
