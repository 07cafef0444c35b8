#include "app/kinds/facts_form.h"

#include <QCheckBox>
#include <QComboBox>
#include <QFileInfo>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <cmath>

#include "app/base/theme.h"
#include "core/base/notation.h"
#include "core/operations/objects.h"
#include "core/operations/show.h"

namespace erdwerk::app {

void FactsForm::heading(const QString& name) {
    auto* label = new QLabel(name);
    label->setFont(theme::font(form_->rowCount() == 0 ? 15 : 12, true));
    label->setWordWrap(true);
    if (form_->rowCount() > 0) label->setStyleSheet(QStringLiteral("color: #5F6B74; padding-top: 8px;"));
    form_->addRow(label);
}

void FactsForm::fact(const QString& name, const QString& value) {
    auto* label = new QLabel(value);
    label->setTextInteractionFlags(Qt::TextSelectableByMouse);
    label->setWordWrap(true);
    label->setAccessibleName(name);
    form_->addRow(name, label);
}

QString FactsForm::said(const QString& name, const QString& value) const {
    const auto& selection = session_->selection();
    const QString who =
        selection.size() == 1 ? nameOf(selection.front().object) + QStringLiteral(": ") : QString();
    return who + name.toLower() + QLatin1Char(' ') + value;
}

void FactsForm::later(const QString& what, document::Edit edit) const {
    QMetaObject::invokeMethod(
        session_, [session = session_, what, edit = std::move(edit)] { session->edit(what, edit); },
        Qt::QueuedConnection);
}

void FactsForm::laterLong(const QString& what, document::LongEdit edit) const {
    QMetaObject::invokeMethod(
        session_, [session = session_, what, edit = std::move(edit)] { session->longEdit(what, edit); },
        Qt::QueuedConnection);
}

void FactsForm::longEntry(const QString& name, std::function<Result<document::LongEdit>(std::string)> edit) {
    auto* line = new QLineEdit;
    line->setAccessibleName(name);
    line->setObjectName(QStringLiteral("fact:") + name);
    QObject::connect(line, &QLineEdit::editingFinished, line,
                     [form = *this, line, name, edit = std::move(edit)] {
                         if (!line->isModified()) return;
                         line->setModified(false);
                         const auto read = edit(line->text().toStdString());
                         if (read) return form.laterLong(form.said(name, line->text()), *read);
                         Q_EMIT form.session().message(text(read.error().text), true);
                     });
    form_->addRow(name, line);
}

void FactsForm::button(const QString& text, const QString& help, const QString& what, document::Edit edit) {
    auto* button = new QPushButton(text);
    button->setToolTip(help);
    QObject::connect(button, &QPushButton::clicked, button,
                     [form = *this, what, edit = std::move(edit)] { form.later(what, edit); });
    row(button);
}

void FactsForm::entry(const QString& name, const QString& value, Change<const QString&> edit) {
    auto* line = new QLineEdit(value);
    line->setAccessibleName(name);
    line->setObjectName(QStringLiteral("fact:") + name);
    line->setCursorPosition(0);
    QObject::connect(
        line, &QLineEdit::editingFinished, line, [form = *this, line, name, value, edit = std::move(edit)] {
            if (!line->isModified() || line->text() == value) return;
            line->setModified(false);
            const QString typed = line->text();
            // What cannot be read is said at once, and the entry shows again what holds.
            if (const auto tried = edit(form.document(), typed); !tried) {
                Q_EMIT form.session().message(text(tried.error().text), true);
                line->setText(value);
                return;
            }
            form.later(form.said(name, typed), [edit, typed](const Document& d) { return edit(d, typed); });
        });
    form_->addRow(name, line);
}

void FactsForm::typedEntry(const QString& name, const QString& value,
                           std::function<document::Edit(std::string)> edit) {
    entry(name, value, [edit = std::move(edit)](const Document& d, const QString& typed) {
        return edit(typed.toStdString())(d);
    });
}

void FactsForm::editCheck(const QString& name, bool value, std::function<document::Edit(bool)> edit) {
    auto* box = new QCheckBox(name);
    box->setChecked(value);
    box->setObjectName(QStringLiteral("fact:") + name);
    QObject::connect(box, &QCheckBox::toggled, box, [form = *this, name, edit = std::move(edit)](bool on) {
        form.later(form.said(name, on ? QObject::tr("on") : QObject::tr("off")), edit(on));
    });
    form_->addRow(box);
}

void FactsForm::check(const QString& name, bool value, Change<bool> edit) {
    editCheck(name, value, [edit = std::move(edit)](bool on) -> document::Edit {
        return [edit, on](const Document& d) -> Result<document::Edited> { return edit(d, on); };
    });
}

void FactsForm::shownCheck(ObjectId id) {
    editCheck(QObject::tr("Shown"), document().shown().hidden.count(id) == 0,
              [id](bool on) { return operations::setShown({id}, on); });
}

void FactsForm::choice(const QString& name, const QStringList& texts, int current, Change<int> edit) {
    auto* box = new QComboBox;
    box->addItems(texts);
    box->setCurrentIndex(current);
    box->setAccessibleName(name);
    box->setObjectName(QStringLiteral("fact:") + name);
    box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    box->setMinimumContentsLength(6);
    QObject::connect(
        box, &QComboBox::activated, box, [form = *this, name, texts, edit = std::move(edit)](int i) {
            form.later(form.said(name, texts.value(i)),
                       [edit, i](const Document& d) -> Result<document::Edited> { return edit(d, i); });
        });
    form_->addRow(name, box);
}

void FactsForm::checkOfMany(const QString& name, std::optional<bool> value,
                            std::function<document::Edit(bool)> edit) {
    auto* box = new QCheckBox(value ? name : QObject::tr("%1 (differs)").arg(name));
    box->setTristate(!value);
    box->setCheckState(!value ? Qt::PartiallyChecked : (*value ? Qt::Checked : Qt::Unchecked));
    box->setObjectName(QStringLiteral("fact:") + name);
    QObject::connect(box, &QCheckBox::clicked, box, [form = *this, box, name, edit = std::move(edit)] {
        // Out of differing values comes the same for all: on.
        form.later(QObject::tr("Set %1 of several").arg(name.toLower()),
                   edit(box->checkState() != Qt::Unchecked));
    });
    form_->addRow(box);
}

void FactsForm::choiceOfMany(const QString& name, const QStringList& texts, std::optional<int> current,
                             std::function<document::Edit(int)> edit) {
    auto* box = new QComboBox;
    box->addItems(texts);
    box->setPlaceholderText(QObject::tr("differs"));
    box->setCurrentIndex(current.value_or(-1));
    box->setAccessibleName(name);
    box->setObjectName(QStringLiteral("fact:") + name);
    box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    box->setMinimumContentsLength(6);
    QObject::connect(box, &QComboBox::activated, box, [form = *this, name, edit = std::move(edit)](int i) {
        form.later(QObject::tr("Set %1 of several").arg(name.toLower()), edit(i));
    });
    form_->addRow(name, box);
}

void FactsForm::entryOfMany(const QString& name, const std::optional<QString>& value,
                            std::function<document::Edit(std::string)> edit) {
    typedEntry(name, value.value_or(QString()), std::move(edit));
    if (value) return;
    auto* line =
        qobject_cast<QLineEdit*>(form_->itemAt(form_->rowCount() - 1, QFormLayout::FieldRole)->widget());
    line->setPlaceholderText(QObject::tr("differs"));
}

void FactsForm::number(const QString& name, double value, double least, Change<double> edit) {
    entry(name, text(formatExact(value)),
          [least, name, edit = std::move(edit)](const Document& d,
                                                const QString& typed) -> Result<document::Edited> {
              const auto v = parseNumber(typed.toStdString());
              if (!v) return badInput("'" + typed.toStdString() + "' is not a number");
              if (*v < least) return badInput(name.toStdString() + " must be at least " + formatExact(least));
              return edit(d, *v);
          });
}

void FactsForm::length(const QString& name, double value, double least, const QString& none,
                       Change<double> edit) {
    const std::string unit(unitSymbol(display().unit));
    const QString shown = value == 0 && !none.isEmpty() ? none : text(formatExact(value) + " " + unit);
    entry(name, shown,
          [least, name, unit, none, edit = std::move(edit)](
              const Document& d, const QString& typed) -> Result<document::Edited> {
              QString figure = typed.trimmed();
              if (!none.isEmpty() && figure.compare(none, Qt::CaseInsensitive) == 0)
                  figure = QStringLiteral("0");
              if (figure.endsWith(text(unit))) figure.chop(static_cast<qsizetype>(unit.size()));
              const auto v = parseNumber(figure.trimmed().toStdString());
              if (!v) return badInput("'" + typed.toStdString() + "' is not a length");
              if (*v < least) return badInput(name.toStdString() + " must be at least " + formatExact(least));
              return edit(d, *v);
          });
}

void FactsForm::oneTo(const QString& name, double value, Change<double> edit) {
    const QString off = QObject::tr("off");
    const QString shown =
        value > 0 ? QStringLiteral("1 : ") + text(formatExact(std::round(1 / value * 100) / 100)) : off;
    entry(name, shown,
          [name, off, edit = std::move(edit)](const Document& d,
                                              const QString& typed) -> Result<document::Edited> {
              const QString figure = typed.trimmed();
              if (figure.compare(off, Qt::CaseInsensitive) == 0) return edit(d, 0);
              const QStringList parts = figure.split(QLatin1Char(':'));
              const auto first = parseNumber(parts.front().trimmed().toStdString());
              const auto second =
                  parts.size() == 2 ? parseNumber(parts.back().trimmed().toStdString()) : std::optional(1.0);
              if (!first || !second || parts.size() > 2 || *first < 0 || !(*second > 0) || *first >= *second)
                  return badInput("'" + typed.toStdString() + "' is not like 1 : 50, nor off");
              return edit(d, *first / *second);
          });
}

void FactsForm::row(QWidget* widget) {
    form_->addRow(widget);
}

void FactsForm::objectChoice(const QString& name, const std::vector<ObjectId>& offered, ObjectId current,
                             Change<ObjectId> edit, const QString& none) {
    QStringList texts{none};
    std::vector<ObjectId> ids{ObjectId{}};
    int at = 0;
    for (const ObjectId id : offered) {
        if (id == current) at = static_cast<int>(ids.size());
        texts << nameOf(id);
        ids.push_back(id);
    }
    choice(name, texts, at, [ids, edit = std::move(edit)](const Document& d, int i) {
        return edit(d, ids[static_cast<std::size_t>(i)]);
    });
}

void FactsForm::nameEntry(ObjectId id) {
    entry(QObject::tr("Name"), nameOf(id),
          [id](const Document& d, const QString& t) -> Result<document::Edited> {
              return operations::rename(id, t.trimmed().toStdString())(d);
          });
}

void FactsForm::fileFacts(const std::string& file, const std::string& problem) {
    fact(QObject::tr("File"), QFileInfo(text(file)).fileName());
    if (!problem.empty()) fact(QObject::tr("Problem"), text(problem));
}

void FactsForm::groupChoice(ObjectId id) {
    objectChoice<objects::Group>(
        QObject::tr("Group"), document().find(id)->group,
        [id](const Document& d, ObjectId g) { return operations::setGroup(id, g)(d); }, QObject::tr("none"));
}

}  // namespace erdwerk::app
