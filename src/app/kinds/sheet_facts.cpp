#include "app/kinds/sheet_facts.h"

#include <QFocusEvent>
#include <QPlainTextEdit>
#include <QPushButton>
#include <algorithm>

#include "app/plan/plan_parts.h"
#include "core/base/notation.h"
#include "core/objects/artwork.h"
#include "core/operations/sheets.h"

namespace erdwerk::app {

using document::Document;
using document::Edit;
using objects::PlanPart;

namespace {

Edit refused(const std::string& reason) {
    return [reason](const Document&) -> Result<document::Edited> { return badInput(reason); };
}

/// A figure typed into an edit of it.
void figure(FactsForm& form, const QString& name, double value, std::function<Edit(double)> edit) {
    form.typedEntry(name, text(formatExact(value)), [edit = std::move(edit)](const std::string& typed) {
        const auto v = parseNumber(typed);
        return v ? edit(*v) : refused("'" + typed + "' is no figure");
    });
}

/// Notes are of several lines: they are taken when the entry is left.
class NotesEntry final : public QPlainTextEdit {
public:
    NotesEntry(const QString& words, std::function<void(const QString&)> take)
        : QPlainTextEdit(words), taken_(words), take_(std::move(take)) {
        setTabChangesFocus(true);
        setMinimumHeight(90);
    }

protected:
    void focusOutEvent(QFocusEvent* event) override {
        QPlainTextEdit::focusOutEvent(event);
        if (toPlainText() == taken_) return;
        taken_ = toPlainText();
        take_(taken_);
    }

private:
    QString taken_;
    std::function<void(const QString&)> take_;
};

/// The rows of one frame's content.
class FrameForm {
public:
    FrameForm(FactsForm& form, ObjectId sheet, std::size_t frame)
        : form_(form), sheet_(sheet), frame_(frame) {}

    void operator()(const objects::PlanFrame& f) {
        scale(f);
        along(f);
        if (!f.along) {
            number<objects::PlanFrame>(QObject::tr("Centre E"), f.centre.x,
                                       [](auto& x, double v) { x.centre.x = v; });
            number<objects::PlanFrame>(QObject::tr("Centre N"), f.centre.y,
                                       [](auto& x, double v) { x.centre.y = v; });
            form_.typedEntry(
                QObject::tr("Up is azimuth"), text(formatAngle(f.up.normalized(), form_.display().angleUnit)),
                [s = sheet_, i = frame_](const std::string& typed) {
                    const auto angle = parseAngle(typed);
                    if (!angle)
                        return refused("'" + typed + "' is no azimuth: write 0 for north, 45.5 or 45°30'");
                    return operations::changeFrame<objects::PlanFrame>(s, i,
                                                                       [angle](auto& x) { x.up = *angle; });
                });
        }
        shows(f);
    }
    void operator()(const objects::ProfileFrame& f) {
        ofObject<objects::Profile>(QObject::tr("Profile"), f.profile, &objects::ProfileFrame::profile);
        scale(f);
        number<objects::ProfileFrame>(QObject::tr("From"), f.from, [](auto& x, double v) { x.from = v; });
        number<objects::ProfileFrame>(QObject::tr("To (0: the room)"), f.to,
                                      [](auto& x, double v) { x.to = v; });
    }
    void operator()(const objects::SectionsFrame& f) {
        ofObject<objects::Alignment>(QObject::tr("Alignment"), f.alignment,
                                     &objects::SectionsFrame::alignment);
        scale(f);
        number<objects::SectionsFrame>(QObject::tr("Every"), f.interval,
                                       [](auto& x, double v) { x.interval = v; });
        number<objects::SectionsFrame>(QObject::tr("To each side"), f.reach,
                                       [](auto& x, double v) { x.reach = v; });
    }
    void operator()(const objects::TableFrame& f) {
        auto offered = form_.document().all<objects::Table>();
        const auto parcels = form_.document().all<objects::Parcel>();
        offered.insert(offered.end(), parcels.begin(), parcels.end());
        choose<objects::TableFrame>(QObject::tr("Table, or courses of"), offered, f.of,
                                    &objects::TableFrame::of, QObject::tr("tagged sides"));
    }
    void operator()(const objects::DescriptionFrame& f) {
        ofObject<objects::Parcel>(QObject::tr("Parcel"), f.parcel, &objects::DescriptionFrame::parcel);
        letters(f);
    }
    void operator()(const objects::PictureFrame& f) {
        ofObject<objects::Artwork>(QObject::tr("Picture"), f.artwork, &objects::PictureFrame::artwork);
    }
    void operator()(const objects::TitleFrame& f) {
        std::vector<ObjectId> offered;
        for (const ObjectId id : form_.document().all<objects::Artwork>())
            if (form_.document().get<objects::Artwork>(id)->format == objects::ArtworkFormat::Svg)
                offered.push_back(id);
        choose<objects::TitleFrame>(QObject::tr("Template"), offered, f.artwork,
                                    &objects::TitleFrame::artwork, QObject::tr("the one that ships"));
        fields(form_, sheet_);
    }
    void operator()(const objects::NotesFrame& f) {
        auto* entry =
            new NotesEntry(text(f.text), [form = form_, s = sheet_, i = frame_](const QString& words) {
                form.later(QObject::tr("Write notes"),
                           operations::changeFrame<objects::NotesFrame>(
                               s, i, [words = words.toStdString()](auto& x) { x.text = words; }));
            });
        entry->setObjectName(QStringLiteral("fact:Notes"));
        entry->setAccessibleName(QObject::tr("Notes"));
        form_.row(entry);
        letters(f);
    }
    void operator()(const objects::LegendFrame&) {}
    void operator()(const objects::KeyPlanFrame&) {}
    void operator()(const objects::ScaleFrame&) {}

    /// What is typed for the fields of the sheet's title blocks.
    static void fields(FactsForm& form, ObjectId sheet) {
        const auto& of = *form.document().get<objects::Sheet>(sheet);
        const auto names = operations::typedFields(form.document(), of);
        if (names.empty()) return;
        form.heading(QObject::tr("Title block"));
        for (const auto& name : names) {
            const auto it = of.fields.find(name);
            // "drawnBy" reads as "Drawn by".
            QString label;
            for (const QChar c : text(name))
                label += c.isUpper() ? QStringLiteral(" ") + c.toLower() : QString(c);
            label = label.left(1).toUpper() + label.mid(1);
            form.typedEntry(
                label, it == of.fields.end() ? QString() : text(it->second),
                [sheet, name](const std::string& typed) { return operations::setField(sheet, name, typed); });
        }
    }

private:
    template <class F>
    void number(const QString& name, double value, std::function<void(F&, double)> set) {
        figure(form_, name, value, [s = sheet_, i = frame_, set = std::move(set)](double v) {
            return operations::changeFrame<F>(s, i, [set, v](F& x) { set(x, v); });
        });
    }
    template <class F>
    void scale(const F& f) {
        number<F>(QObject::tr("Scale 1 :"), f.scale, [](F& x, double v) { x.scale = v; });
    }
    template <class F>
    void letters(const F& f) {
        number<F>(QObject::tr("Letters, mm"), f.letters, [](F& x, double v) { x.letters = v; });
    }
    template <class F>
    void choose(const QString& name, const std::vector<ObjectId>& offered, ObjectId current,
                ObjectId F::*member, const QString& none) {
        form_.objectChoice(
            name, offered, current,
            [s = sheet_, i = frame_, member](const Document& d, ObjectId id) {
                return operations::changeFrame<F>(s, i, [member, id](F& x) { x.*member = id; })(d);
            },
            none);
    }
    template <class T, class F>
    void ofObject(const QString& name, ObjectId current, ObjectId F::*member) {
        choose<F>(name, form_.document().all<T>(), current, member, QObject::tr("none"));
    }
    void along(const objects::PlanFrame& f) {
        form_.objectChoice<objects::Alignment>(
            QObject::tr("Turned along"), f.along,
            [s = sheet_, i = frame_, results = form_.session().results()](const Document& d, ObjectId id) {
                return operations::layAlong(results, s, i, id)(d);
            },
            QObject::tr("nothing"));
        if (!f.along) return;
        number<objects::PlanFrame>(QObject::tr("From"), f.from, [](auto& x, double v) { x.from = v; });
        number<objects::PlanFrame>(QObject::tr("To"), f.to, [](auto& x, double v) { x.to = v; });
    }
    void shows(const objects::PlanFrame& f) {
        form_.heading(QObject::tr("Shows"));
        // Paper shows no colours of the ground, clouds or pictures.
        for (const PlanPart part : objects::allPlanParts)
            if (part != PlanPart::GroundColours && part != PlanPart::Clouds && part != PlanPart::Backdrops)
                form_.editCheck(planPartText(part), f.shown.off.count(part) == 0,
                                [s = sheet_, i = frame_, part](bool on) {
                                    return operations::setFramePart(s, i, part, on);
                                });
        const auto& d = form_.document();
        auto ids = d.all<objects::Group>();
        const auto styles = d.all<objects::LabelStyle>();
        ids.insert(ids.end(), styles.begin(), styles.end());
        if (ids.empty()) return;
        form_.heading(QObject::tr("Groups and labels"));
        form_.fact(QObject::tr("As"),
                   f.shown.hide ? QObject::tr("chosen here") : QObject::tr("the screen shows"));
        const auto& hide = f.shown.hide ? *f.shown.hide : d.shown().hidden;
        for (const ObjectId id : ids)
            form_.editCheck(form_.nameOf(id), hide.count(id) == 0, [s = sheet_, i = frame_, id](bool on) {
                return operations::setFrameShows(s, i, id, on);
            });
        if (f.shown.hide)
            form_.button(QObject::tr("As on the screen"), QObject::tr("Shows and hides what the plan does"),
                         QObject::tr("Show as on the screen"), operations::showAsOnScreen(sheet_, frame_));
    }

    FactsForm& form_;
    ObjectId sheet_;
    std::size_t frame_;
};

void paperChoice(FactsForm& form, ObjectId id, const objects::Sheet& sheet) {
    QStringList words;
    std::vector<std::array<double, 2>> papers;
    for (const bool upright : {false, true})
        for (const auto& size : objects::paperSizes()) {
            papers.push_back(upright ? std::array{size.height, size.width}
                                     : std::array{size.width, size.height});
            words << text(objects::paperName(papers.back()));
        }
    const auto at = std::find(papers.begin(), papers.end(), sheet.paper);
    if (at == papers.end()) {
        papers.push_back(sheet.paper);
        words << text(objects::paperName(sheet.paper));
    }
    const auto current = std::find(papers.begin(), papers.end(), sheet.paper) - papers.begin();
    form.choice(QObject::tr("Paper"), words, static_cast<int>(current),
                [id, papers](const Document& d, int i) {
                    return operations::setPaper(id, papers[static_cast<std::size_t>(i)])(d);
                });
    for (const std::size_t side : {0U, 1U})
        figure(form, side == 0 ? QObject::tr("Width, mm") : QObject::tr("Height, mm"), sheet.paper[side],
               [id, paper = sheet.paper, side](double v) {
                   auto next = paper;
                   next[side] = v;
                   return operations::setPaper(id, next);
               });
}

void weights(FactsForm& form, ObjectId id, const objects::Sheet& sheet) {
    form.heading(QObject::tr("Lines on paper, mm"));
    using objects::LineWeights;
    const std::array<std::pair<QString, double LineWeights::*>, 5> all{
        std::pair{QObject::tr("Contours"), &LineWeights::ground},
        {QObject::tr("3D lines"), &LineWeights::linework},
        {QObject::tr("Alignments"), &LineWeights::routes},
        {QObject::tr("Parcels"), &LineWeights::records},
        {QObject::tr("Survey points"), &LineWeights::points}};
    for (const auto& [name, layer] : all)
        figure(form, name, sheet.weights.*layer,
               [id, layer = layer](double v) { return operations::setWeight(id, layer, v); });
}

}  // namespace

void sheetFacts(FactsForm& form, ObjectId id) {
    const auto sheet = *form.document().get<objects::Sheet>(id);
    form.heading(form.nameOf(id));
    form.nameEntry(id);
    paperChoice(form, id, sheet);
    FrameForm::fields(form, id);
    form.heading(QObject::tr("Frames"));
    for (std::size_t i = 0; i < sheet.frames.size(); ++i) {
        auto* button = new QPushButton(text(operations::frameTitle(form.document(), sheet, i)));
        button->setObjectName(QStringLiteral("frame:%1").arg(i));
        button->setStyleSheet(QStringLiteral("QPushButton { text-align: left; padding: 3px 8px; }"));
        QObject::connect(button, &QPushButton::clicked, &form.session(), [session = &form.session(), id, i] {
            QMetaObject::invokeMethod(
                session,
                [=] {
                    session->selection().set({{id, i}});
                },
                Qt::QueuedConnection);
        });
        form.row(button);
    }
    weights(form, id, sheet);
}

void frameFacts(FactsForm& form, ObjectId id, std::size_t frame) {
    const auto sheet = *form.document().get<objects::Sheet>(id);
    const auto& of = sheet.frames[frame];
    form.heading(text(operations::frameTitle(form.document(), sheet, frame)));
    form.fact(QObject::tr("Sheet"), form.nameOf(id));
    using paper::Room;
    const std::array<std::pair<QString, double Room::*>, 4> sides{
        std::pair{QObject::tr("From left, mm"), &Room::left},
        {QObject::tr("From top, mm"), &Room::top},
        {QObject::tr("Width, mm"), &Room::width},
        {QObject::tr("Height, mm"), &Room::height}};
    for (const auto& [name, side] : sides)
        figure(form, name, of.room.*side, [id, frame, room = of.room, side = side](double v) {
            Room next = room;
            next.*side = v;
            return operations::setRoom(id, frame, next);
        });
    std::visit(FrameForm(form, id, frame), of.content);
    form.heading(QObject::tr("On the sheet"));
    if (frame + 1 < sheet.frames.size())
        form.button(QObject::tr("To the top"), QObject::tr("Over all other frames"),
                    QObject::tr("Bring a frame to the top"), operations::setFrameOrder(id, frame, true));
    if (frame > 0)
        form.button(QObject::tr("To the bottom"), QObject::tr("Under all other frames"),
                    QObject::tr("Bring a frame to the bottom"), operations::setFrameOrder(id, frame, false));
}

}  // namespace erdwerk::app
