import { DatePicker, Portal, parseDate } from "@chakra-ui/react";
import { CalendarDays } from "lucide-react";

interface DateFieldProps {
  label: string;
  /** 2031-09-20; "" for none. */
  value: string;
  onChange: (value: string) => void;
  /** The last day that can be chosen. */
  max?: string;
  w: string;
}

/** A day, typed or chosen from a calendar, in the order in which this device writes dates. */
export function DateField({ label, value, onChange, max, w }: DateFieldProps) {
  return (
    <DatePicker.Root
      w={w}
      locale={navigator.language}
      startOfWeek={1}
      lazyMount // what a calendar is drawn from is as much as all else on its place
      unmountOnExit
      value={value ? [parseDate(value)] : []}
      onValueChange={(e) => onChange(e.value[0]?.toString() ?? "")}
      {...(max && { max: parseDate(max) })}
    >
      <DatePicker.Label color="muted">{label}</DatePicker.Label>
      <DatePicker.Control>
        <DatePicker.Input h="44px" bg="panel" borderColor="edge" />
        <DatePicker.IndicatorGroup>
          <DatePicker.Trigger minW="44px" h="44px" aria-label={`${label}, from a calendar`}>
            <CalendarDays aria-hidden />
          </DatePicker.Trigger>
        </DatePicker.IndicatorGroup>
      </DatePicker.Control>
      <Portal>
        <DatePicker.Positioner>
          <DatePicker.Content bg="panel" color="ink">
            <DatePicker.View view="day">
              <DatePicker.Header />
              <DatePicker.DayTable />
            </DatePicker.View>
            <DatePicker.View view="month">
              <DatePicker.Header />
              <DatePicker.MonthTable />
            </DatePicker.View>
            <DatePicker.View view="year">
              <DatePicker.Header />
              <DatePicker.YearTable />
            </DatePicker.View>
          </DatePicker.Content>
        </DatePicker.Positioner>
      </Portal>
    </DatePicker.Root>
  );
}
