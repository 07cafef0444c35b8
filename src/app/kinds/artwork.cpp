// Title blocks and pictures of sheets.

#include "core/objects/artwork.h"
#include "app/kinds/all_kinds.h"
#include "core/paper/title_block.h"

namespace erdwerk::app {

namespace {

class ArtworkKind final : public NotInPlan<StaysPut<NotInScene<ObjectKind>>> {
public:
    [[nodiscard]] QString noun() const override { return QObject::tr("picture"); }
    [[nodiscard]] QString title() const override { return QObject::tr("Title blocks and pictures"); }
    [[nodiscard]] bool hasPlace() const override { return false; }
    [[nodiscard]] bool startsFolded() const override { return true; }
    void bounds(const derive::Derived&, ObjectId, geometry::Box&) const override {}
    void handles(HandlePainter&, const Ref&) const override {}
    void facts(FactsForm& form, const Ref& ref) const override {
        const auto& artwork = *form.document().get<objects::Artwork>(ref.object);
        form.heading(form.nameOf(ref.object));
        form.nameEntry(ref.object);
        form.fact(QObject::tr("Format"), text(std::string(artworkFormatName(artwork.format))).toUpper());
        form.fact(QObject::tr("Size"),
                  QObject::tr("%1 kB").arg(static_cast<double>(artwork.bytes->size()) / 1000, 0, 'f', 1));
        if (artwork.format != objects::ArtworkFormat::Svg) return;
        const auto block = paper::readTitleBlock(*artwork.bytes);
        if (!block) return form.fact(QObject::tr("Problem"), text(block.error().text));
        form.fact(QObject::tr("On paper"), QObject::tr("%1 x %2 mm").arg(block->width).arg(block->height));
        QStringList fields;
        for (const auto& field : block->fields) fields << text(field);
        if (!fields.isEmpty()) form.fact(QObject::tr("Fields"), fields.join(QStringLiteral(", ")));
    }
};

}  // namespace

template <>
const ObjectKind& kindOf<objects::Artwork>() {
    static const ArtworkKind kind;
    return kind;
}

}  // namespace erdwerk::app
