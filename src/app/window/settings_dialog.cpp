#include "app/window/settings_dialog.h"

#include <QComboBox>
#include <QDialogButtonBox>
#include <QDoubleSpinBox>
#include <QFormLayout>
#include <QLabel>
#include <QSpinBox>

#include "core/operations/ground.h"

namespace erdwerk::app {

SettingsDialog::SettingsDialog(Session& session, QWidget* parent) : QDialog(parent) {
    setObjectName(QStringLiteral("settings"));
    setWindowTitle(tr("Units and display"));
    auto* form = new QFormLayout(this);
    form->setVerticalSpacing(7);
    const auto now = session.document().settings().display;
    const auto change = [&session](const std::function<void(DisplaySettings&)>& edit) {
        session.edit(QObject::tr("Change units and display"),
                     operations::changeSettings([&](document::Settings& s) { edit(s.display); }));
    };
    const auto choice = [&](const QString& name, const QStringList& texts, int current, auto edit) {
        auto* box = new QComboBox;
        box->addItems(texts);
        box->setCurrentIndex(current);
        box->setAccessibleName(name);
        box->setObjectName(name);
        connect(box, &QComboBox::activated, this,
                [change, edit](int i) { change([&](DisplaySettings& d) { edit(d, i); }); });
        form->addRow(name, box);
    };
    const auto decimals = [&](const QString& name, int current, int DisplaySettings::*field) {
        auto* box = new QSpinBox;
        box->setRange(0, 6);
        box->setValue(current);
        box->setAccessibleName(name);
        connect(box, &QSpinBox::valueChanged, this,
                [change, field](int v) { change([&](DisplaySettings& d) { d.*field = v; }); });
        form->addRow(name, box);
    };
    choice(tr("Unit of the coordinates"), {tr("metres"), tr("international feet"), tr("US survey feet")},
           static_cast<int>(now.unit),
           [](DisplaySettings& d, int i) { d.unit = static_cast<LengthUnit>(i); });
    choice(tr("Directions as"), {tr("bearings  N 45°30'20\" E"), tr("azimuths  45°30'20\"")},
           static_cast<int>(now.direction),
           [](DisplaySettings& d, int i) { d.direction = static_cast<DirectionStyle>(i); });
    choice(tr("Angles in"), {tr("degrees, minutes, seconds"), tr("decimal degrees"), tr("gon")},
           static_cast<int>(now.angleUnit),
           [](DisplaySettings& d, int i) { d.angleUnit = static_cast<AngleUnit>(i); });
    choice(tr("Stations as"), {tr("0+000"), tr("0+00")}, static_cast<int>(now.station),
           [](DisplaySettings& d, int i) { d.station = static_cast<StationStyle>(i); });
    choice(tr("Coordinates as"), {tr("easting, northing"), tr("northing, easting")},
           static_cast<int>(now.order),
           [](DisplaySettings& d, int i) { d.order = static_cast<CoordinateOrder>(i); });
    decimals(tr("Decimals of lengths"), now.lengthDecimals, &DisplaySettings::lengthDecimals);
    decimals(tr("Decimals of heights"), now.heightDecimals, &DisplaySettings::heightDecimals);
    decimals(tr("Decimals of grades"), now.gradeDecimals, &DisplaySettings::gradeDecimals);
    const auto limit = [&](const QString& name, double current, double document::CheckLimits::*field) {
        auto* box = new QDoubleSpinBox;
        box->setDecimals(3);
        box->setRange(0, 10);
        box->setSingleStep(0.01);
        box->setValue(current);
        box->setAccessibleName(name);
        box->setToolTip(tr("In project units; 0 switches this check off"));
        connect(box, &QDoubleSpinBox::valueChanged, this, [&session, field](double v) {
            session.edit(QObject::tr("Change when a check speaks"),
                         operations::changeSettings([&](document::Settings& s) { s.checks.*field = v; }));
        });
        form->addRow(name, box);
    };
    const auto checks = session.document().settings().checks;
    limit(tr("Points are near-duplicates within"), checks.near, &document::CheckLimits::near);
    limit(tr("Lines nearly touch within"), checks.touch, &document::CheckLimits::touch);
    auto* note = new QLabel(tr(
        "The unit says what the coordinates are in; it does not convert them. Every change can be undone."));
    note->setWordWrap(true);
    note->setStyleSheet(QStringLiteral("color: #5F6B74;"));
    form->addRow(note);
    auto* buttons = new QDialogButtonBox(QDialogButtonBox::Close);
    connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::accept);
    form->addRow(buttons);
}

}  // namespace erdwerk::app
