#include "app/window/settings_dialog.h"

#include <QComboBox>
#include <QDialogButtonBox>
#include <QDoubleSpinBox>
#include <QFormLayout>
#include <QLabel>
#include <QSpinBox>

#include "core/operations/objects.h"

namespace erdwerk::app {

namespace {

/// The rows; each changes the settings at once.
class SettingsForm {
public:
    SettingsForm(Session& session, QDialog& dialog)
        : session_(session), dialog_(dialog), form_(new QFormLayout(&dialog)) {
        form_->setVerticalSpacing(7);
    }

    void choice(const QString& name, const QStringList& texts, int current,
                const std::function<void(DisplaySettings&, int)>& edit) {
        auto* box = new QComboBox;
        box->addItems(texts);
        box->setCurrentIndex(current);
        box->setAccessibleName(name);
        box->setObjectName(name);
        QObject::connect(box, &QComboBox::activated, &dialog_, [&session = session_, edit](int i) {
            session.edit(QObject::tr("Change units and display"),
                         operations::changeSettings([&](document::Settings& s) { edit(s.display, i); }));
        });
        form_->addRow(name, box);
    }
    void decimals(const QString& name, int DisplaySettings::*field) {
        auto* box = new QSpinBox;
        box->setRange(0, 6);
        box->setValue(session_.document().settings().display.*field);
        box->setAccessibleName(name);
        QObject::connect(box, &QSpinBox::valueChanged, &dialog_, [&session = session_, field](int v) {
            session.edit(QObject::tr("Change units and display"),
                         operations::changeSettings([&](document::Settings& s) { s.display.*field = v; }));
        });
        form_->addRow(name, box);
    }
    void limit(const QString& name, double document::CheckLimits::*field) {
        auto* box = new QDoubleSpinBox;
        box->setDecimals(3);
        box->setRange(0, 10);
        box->setSingleStep(0.01);
        box->setToolTip(QObject::tr("In project units; 0 switches this check off"));
        keep(box, name, field);
    }
    /// One that depends on how large a thing is, unless it is set.
    void limitBySize(const QString& name, double document::CheckLimits::*field, const QString& unit) {
        auto* box = new QDoubleSpinBox;
        box->setDecimals(1);
        box->setRange(0, 1e9);
        box->setSuffix(QLatin1Char(' ') + unit);
        box->setSpecialValueText(QObject::tr("by its size"));
        box->setToolTip(QObject::tr("0: as much as goes with the size of the pad"));
        keep(box, name, field);
    }
    /// In per cent of rise over run.
    void limitOfGrade(const QString& name, double document::CheckLimits::*field) {
        auto* box = new QDoubleSpinBox;
        box->setDecimals(1);
        box->setRange(0, 10'000);
        box->setSuffix(QStringLiteral(" %"));
        box->setSpecialValueText(QObject::tr("none"));
        box->setToolTip(QObject::tr("Give heights marks steeper stretches; 0: none is too steep"));
        keep(box, name, field, 100);
    }
    void row(QWidget* widget) { form_->addRow(widget); }

private:
    void keep(QDoubleSpinBox* box, const QString& name, double document::CheckLimits::*field,
              double shownPer = 1) {
        box->setValue(session_.document().settings().checks.*field * shownPer);
        box->setAccessibleName(name);
        box->setObjectName(name);
        QObject::connect(
            box, &QDoubleSpinBox::valueChanged, &dialog_, [&session = session_, field, shownPer](double v) {
                session.edit(QObject::tr("Change when a check speaks"),
                             operations::changeSettings(
                                 [&](document::Settings& s) { s.checks.*field = v / shownPer; }));
            });
        form_->addRow(name, box);
    }
    Session& session_;
    QDialog& dialog_;
    QFormLayout* form_;
};

}  // namespace

SettingsDialog::SettingsDialog(Session& session, QWidget* parent) : QDialog(parent) {
    setObjectName(QStringLiteral("settings"));
    setWindowTitle(tr("Units and display"));
    SettingsForm form(session, *this);
    const auto now = session.document().settings().display;
    form.choice(tr("Unit of the coordinates"), {tr("metres"), tr("international feet"), tr("US survey feet")},
                static_cast<int>(now.unit),
                [](DisplaySettings& d, int i) { d.unit = static_cast<LengthUnit>(i); });
    form.choice(tr("Directions as"), {tr("bearings  N 45°30'20\" E"), tr("azimuths  45°30'20\"")},
                static_cast<int>(now.direction),
                [](DisplaySettings& d, int i) { d.direction = static_cast<DirectionStyle>(i); });
    form.choice(tr("Angles in"), {tr("degrees, minutes, seconds"), tr("decimal degrees"), tr("gon")},
                static_cast<int>(now.angleUnit),
                [](DisplaySettings& d, int i) { d.angleUnit = static_cast<AngleUnit>(i); });
    form.choice(tr("Stations as"), {tr("0+000"), tr("0+00")}, static_cast<int>(now.station),
                [](DisplaySettings& d, int i) { d.station = static_cast<StationStyle>(i); });
    form.choice(tr("Coordinates as"), {tr("easting, northing"), tr("northing, easting")},
                static_cast<int>(now.order),
                [](DisplaySettings& d, int i) { d.order = static_cast<CoordinateOrder>(i); });
    form.decimals(tr("Decimals of lengths"), &DisplaySettings::lengthDecimals);
    form.decimals(tr("Decimals of heights"), &DisplaySettings::heightDecimals);
    form.decimals(tr("Decimals of grades"), &DisplaySettings::gradeDecimals);
    form.limit(tr("Points are near-duplicates within"), &document::CheckLimits::near);
    form.limit(tr("Lines nearly touch within"), &document::CheckLimits::touch);
    form.limitOfGrade(tr("Lines are steep from"), &document::CheckLimits::steepest);
    const QString unit = QString::fromUtf8(unitSymbol(now.unit).data());
    form.limitBySize(tr("Pads are large from"), &document::CheckLimits::earth, unit + QStringLiteral("³"));
    form.limitBySize(tr("or when slopes run out"), &document::CheckLimits::reach, unit);
    form.limitBySize(tr("or when slopes are as high as"), &document::CheckLimits::depth, unit);
    auto* note = new QLabel(tr(
        "The unit says what the coordinates are in; it does not convert them. Every change can be undone."));
    note->setWordWrap(true);
    note->setStyleSheet(QStringLiteral("color: #5F6B74;"));
    form.row(note);
    auto* buttons = new QDialogButtonBox(QDialogButtonBox::Close);
    connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::accept);
    form.row(buttons);
}

}  // namespace erdwerk::app

#include "moc_settings_dialog.cpp"
