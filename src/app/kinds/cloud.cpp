// Point clouds.

#include "core/objects/cloud.h"
#include "app/base/theme.h"
#include "app/kinds/all_kinds.h"
#include "app/plan/plan_layer.h"
#include "core/operations/edit.h"
#include "core/survey/cloud.h"
#include "core/survey/cloud_tiles.h"

namespace erdwerk::app {

using document::Document;

namespace {

QColor classColour(std::uint8_t c) {
    switch (c) {
        case 2:
            return {0x8E, 0x6E, 0x45};  // ground
        case 3:
        case 4:
        case 5:
            return {0x5E, 0x7F, 0x4C};  // vegetation
        case 6:
            return {0x9A, 0x53, 0x48};  // building
        case 7:
        case 18:
            return {0xC9, 0x8F, 0x1E};  // noise
        case 9:
            return {0x3F, 0x5C, 0x73};  // water
        default:
            return {0x7C, 0x83, 0x88};
    }
}

QRgb cloudColour(const objects::Cloud& cloud, std::size_t i) {
    const survey::PointCloud& c = *cloud.cloud;
    switch (cloud.colouring) {
        case objects::CloudColouring::Class:
            return classColour(c.classOf(i)).rgb();
        case objects::CloudColouring::Intensity: {
            const int grey = 40 + c.intensity(i) * 190 / 65535;
            return qRgb(grey, grey, grey);
        }
        case objects::CloudColouring::Colour:
            if (c.coloured()) {
                const auto rgb = c.colour(i);
                return qRgb(rgb[0], rgb[1], rgb[2]);
            }
            break;
        case objects::CloudColouring::Height:
            break;
    }
    const double range = std::max(1e-9, c.max().z - c.min().z);
    return theme::heightColour((c.place(i).z - c.min().z) / range).rgb();
}

QString className(std::size_t c) {
    switch (c) {
        case 0:
            return QObject::tr("never classified");
        case 1:
            return QObject::tr("unclassified");
        case 2:
            return QObject::tr("ground");
        case 3:
            return QObject::tr("low vegetation");
        case 4:
            return QObject::tr("medium vegetation");
        case 5:
            return QObject::tr("high vegetation");
        case 6:
            return QObject::tr("building");
        case 7:
            return QObject::tr("low noise");
        case 9:
            return QObject::tr("water");
        case 18:
            return QObject::tr("high noise");
        default:
            return QObject::tr("class %1").arg(c);
    }
}

/// Of one cloud, whatever it is by the time of the edit.
auto editOf(ObjectId id) {
    return [id](const Document& d, const std::function<void(objects::Cloud&)>& change) {
        return document::changed<objects::Cloud>(d, id, change);
    };
}

void classFacts(FactsForm& form, ObjectId id, const objects::Cloud& cloud) {
    const auto edit = editOf(id);
    const auto& c = *cloud.cloud;
    form.heading(QObject::tr("Classes that take part"));
    if (cloud.classified)
        form.fact(QObject::tr("Classes"), QObject::tr("changed here, not those of the file"));
    const auto counts = c.classCounts();
    std::vector<std::uint8_t> there;
    for (std::size_t k = 0; k < counts.size(); ++k)
        if (counts[k] > 0) there.push_back(static_cast<std::uint8_t>(k));
    for (const std::uint8_t k : there) {
        const bool on = cloud.filter.classes.empty() ||
                        std::find(cloud.filter.classes.begin(), cloud.filter.classes.end(), k) !=
                            cloud.filter.classes.end();
        form.check(QStringLiteral("%1  %2   %3").arg(k).arg(className(k)).arg(counts[k]), on,
                   [edit, k, there](const Document& d, bool state) {
                       return edit(d, [&](objects::Cloud& x) {
                           if (x.filter.classes.empty()) x.filter.classes = there;
                           std::erase(x.filter.classes, k);
                           if (state) x.filter.classes.push_back(k);
                           std::sort(x.filter.classes.begin(), x.filter.classes.end());
                           if (x.filter.classes == there) x.filter.classes.clear();
                       });
                   });
    }
}

/// As many points as the picture can show, spread evenly.
void paintPoints(PlanCanvas& canvas, const objects::Cloud& cloud, const survey::CloudTiles& tiles) {
    QImage image = canvas.image(1);
    const double ratio = 1 / canvas.unit;
    // About two points for every pixel that can show one.
    const auto budget = static_cast<std::size_t>(image.width()) * static_cast<std::size_t>(image.height());
    const survey::CloudPart part(*cloud.cloud, cloud.filter);
    const double pixelsApart = canvas.view.scale * ratio * tiles.cloud().spacing();
    // Two pixels wide at least, or chance would leave holes where points are plenty.
    const int size = std::clamp(static_cast<int>(std::ceil(pixelsApart * 0.6)), 2, 4);
    std::vector<std::uint8_t> taken;
    int takenColumns = 0;
    const double apart = cloud.spacing * canvas.view.scale * ratio;
    if (apart > 1) {
        takenColumns = static_cast<int>(image.width() / apart) + 2;
        taken.assign(
            static_cast<std::size_t>(takenColumns) * (static_cast<std::size_t>(image.height() / apart) + 2),
            0);
    }
    tiles.sample(canvas.window, budget, [&](std::uint32_t i) {
        if (!part.has(i)) return;
        const QPointF q = canvas.view.toPicture(cloud.cloud->place(i).plan()) * ratio;
        const int x = static_cast<int>(q.x());
        const int y = static_cast<int>(q.y());
        if (x < 0 || y < 0 || x + size > image.width() || y + size > image.height()) return;
        if (!taken.empty()) {
            auto& cell =
                taken[static_cast<std::size_t>(q.y() / apart) * static_cast<std::size_t>(takenColumns) +
                      static_cast<std::size_t>(q.x() / apart)];
            if (cell != 0) return;
            cell = 1;
        }
        const QRgb colour = cloudColour(cloud, i) | 0xff000000U;
        for (int dy = 0; dy < size; ++dy) {
            auto* row = reinterpret_cast<QRgb*>(image.scanLine(y + dy));
            for (int dx = 0; dx < size; ++dx) row[x + dx] = colour;
        }
    });
    canvas.painter.drawImage(QRectF({0, 0}, canvas.view.size), image);
}

bool hasVisibleSurface(const Document& document, ObjectId cloud) {
    const auto users = document::dependents(document, cloud);
    return std::any_of(users.begin(), users.end(), [&](ObjectId id) {
        return document.get<objects::Surface>(id) != nullptr && !document.hidden(*document.find(id));
    });
}

class CloudKind final : public StaysPut<ObjectKind> {
public:
    [[nodiscard]] QString noun() const override { return QObject::tr("point cloud"); }
    [[nodiscard]] QString title() const override { return QObject::tr("Point clouds"); }
    void bounds(const derive::Derived& derived, ObjectId id, geometry::Box& box) const override {
        if (const auto* tiles = derive::Derived::in(derived.clouds, id); tiles && !tiles->cloud().empty())
            box.add(tiles->cloud().bounds());
    }
    [[nodiscard]] std::optional<objects::PlanPart> part() const override { return objects::PlanPart::Clouds; }
    [[nodiscard]] std::vector<PlanPass> passes() const override {
        return {PlanPass::DenseBelow, PlanPass::Dense};
    }
    /// A surface that was made from it lies above it.
    void paint(PlanCanvas& canvas, ObjectId id, PlanPass pass) const override {
        if ((pass == PlanPass::DenseBelow) != hasVisibleSurface(canvas.document, id)) return;
        if (const auto* tiles = derive::Derived::in(canvas.derived.clouds, id))
            paintPoints(canvas, *canvas.document.get<objects::Cloud>(id), *tiles);
    }
    /// When the points stand apart enough to be told from each other.
    void hit(SnapSearch& search, ObjectId id) const override {
        const auto* tiles = derive::Derived::in(search.derived().clouds, id);
        if (tiles == nullptr || tiles->cloud().spacing() * search.scale() < 6) return;
        const auto& cloud = *search.document().get<objects::Cloud>(id);
        const auto nearest = tiles->nearest(search.cursor(), search.reach());
        if (!nearest || !survey::CloudPart(*cloud.cloud, cloud.filter).has(*nearest)) return;
        const auto p = cloud.cloud->place(*nearest);
        Snap snap{SnapKind::Dense, p.plan(), p.z, {id, std::nullopt}};
        snap.name = QObject::tr("cloud point of %1").arg(search.nameOf(id));
        search.add(std::move(snap));
    }
    void handles(HandlePainter& painter, const Ref& ref) const override {
        geometry::Box box;
        bounds(painter.derived(), ref.object, box);
        if (!box.empty()) painter.frame(box);
    }
    void show(SceneContent& content, ObjectId id) const override {
        const auto& derived = content.derived();
        const auto found = derived.clouds.find(id);
        const auto object = derived.document.find(id);
        if (found == derived.clouds.end() || found->second->cloud().empty()) return;
        const auto& all = found->second->cloud();
        content.addDense({id, object, all.spacing(),
                          [object, tiles = found->second](const geometry::Box& window, std::size_t most,
                                                          const SceneDense::Take& take) {
                              const auto& cloud = *object->payload.as<objects::Cloud>();
                              const survey::CloudPart part(*cloud.cloud, cloud.filter);
                              tiles->sample(window, most, [&](std::uint32_t i) {
                                  if (part.has(i)) take(cloud.cloud->place(i), cloudColour(cloud, i));
                              });
                          }},
                         all.bounds(), all.min().z, all.max().z);
    }
    void facts(FactsForm& form, const Ref& ref) const override {
        const ObjectId id = ref.object;
        const auto& document = form.document();
        const auto& display = document.settings().display;
        const auto cloud = *document.get<objects::Cloud>(id);
        form.heading(text(document.nameOf(id)));
        form.fileFacts(cloud.file, cloud.problem);
        if (!cloud.cloud) return;
        const auto& c = *cloud.cloud;
        form.fact(QObject::tr("Points"),
                  QLocale(QLocale::English).toString(static_cast<qulonglong>(c.size())));
        form.fact(QObject::tr("Heights"),
                  text(formatHeight(c.min().z, display) + " to " + formatHeight(c.max().z, display)));
        form.fact(QObject::tr("Spacing"), text(formatFixed(c.spacing(), 3)) + QObject::tr(" on average"));
        form.fact(QObject::tr("In memory"),
                  QObject::tr("%1 MB").arg(static_cast<double>(c.memory()) / 1e6, 0, 'f', 1));
        const auto edit = editOf(id);
        form.choice(
            QObject::tr("Coloured by"),
            {QObject::tr("height"), QObject::tr("class"), QObject::tr("intensity"), QObject::tr("colour")},
            static_cast<int>(cloud.colouring), [edit](const Document& d, int i) {
                return edit(
                    d, [i](objects::Cloud& x) { x.colouring = static_cast<objects::CloudColouring>(i); });
            });
        form.length(QObject::tr("Show one every"), cloud.spacing, 0, QObject::tr("all"),
                    [edit](const Document& d, double v) {
                        return edit(d, [v](objects::Cloud& x) { x.spacing = v; });
                    });
        if (!cloud.filter.inside.empty())
            form.check(QObject::tr("Cropped by a line"), true, [edit](const Document& d, bool on) {
                return edit(d, [on](objects::Cloud& x) {
                    if (!on) x.filter.inside.clear();
                });
            });
        classFacts(form, id, cloud);
        form.groupChoice(id);
    }
};

}  // namespace

template <>
const ObjectKind& kindOf<objects::Cloud>() {
    static const CloudKind kind;
    return kind;
}

}  // namespace erdwerk::app
