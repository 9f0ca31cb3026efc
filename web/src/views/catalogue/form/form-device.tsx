import { type Device, minorOf, moneyAmount, PRACTICES, RADIO_WORDS } from '@inventario/core';
import { useJob } from '../../../data/job-context.js';
import { PickOne, PickSeveral, Segments } from '../../../ui/choice.js';
import { NumberField, TextField } from '../../../ui/field.js';
import { Toggle } from '../../../ui/toggle.js';
import { Group, OPTIONAL, options, type Section, wordsOf } from './form-parts.js';

export function Basics({ device, set }: Section) {
  const { job } = useJob();
  return (
    <Group title="What it is">
      <TextField
        label="Maker"
        value={device.maker}
        onText={(maker) => set({ maker })}
        maxLength={100}
        autoFocus
      />
      <TextField label="Model" value={device.model} onText={(model) => set({ model })} maxLength={100} />
      <TextField label="Family" value={device.family} onText={(family) => set({ family })} maxLength={100} />
      <NumberField
        label="Price"
        unit={job.money?.currency ?? ''}
        value={moneyAmount(device.price, job.money?.currency)}
        onNumber={(price) => set({ price: minorOf(price, job.money?.currency) })}
      />
      <PickSeveral
        label="Made for"
        placeholder="no practice"
        values={device.practices}
        options={options(PRACTICES)}
        onChoice={(practices) => set({ practices: practices as Device['practices'] })}
      />
      <NumberField
        label="Lowest voltage"
        unit="V"
        value={device.volts[0]}
        onNumber={(low) => set({ volts: [low, device.volts[1] ?? low] })}
      />
      <NumberField
        label="Highest voltage"
        unit="V"
        value={device.volts[1]}
        onNumber={(high) => set({ volts: [device.volts[0] ?? high, high] })}
      />
      <Segments
        label="Neutral"
        value={device.needs.neutral ? 'needed' : 'not needed'}
        options={options(['needed', 'not needed'])}
        onChoice={(need) => set({ needs: { ...device.needs, neutral: need === 'needed' } })}
      />
      <PickOne
        label="Ground"
        value={device.needs.ground}
        options={options(['required', 'recommended', 'none'])}
        onChoice={(ground) => set({ needs: { ...device.needs, ground } })}
      />
      <Toggle
        label="Line and load interchangeable"
        on={device.interchangeableLineLoad === true}
        onToggle={(on) => set({ interchangeableLineLoad: on })}
      />
    </Group>
  );
}

export function Body({ device, set }: Section) {
  const { body } = device;
  return (
    <Group title="Body, face and plate">
      <PickOne
        label="Goes"
        value={device.mount}
        options={options(['box', 'fitting', 'surface'], {
          box: 'in the box',
          fitting: 'at the fitting',
          surface: 'on the wall',
        })}
        onChoice={(mount) => set({ mount })}
      />
      <NumberField label="Gangs" whole min={1} value={device.gangs} onNumber={(gangs) => set({ gangs })} />
      <NumberField
        label="Width behind the face"
        unit="mm"
        value={body.width}
        onNumber={(width) => set({ body: { ...body, width } })}
      />
      <NumberField
        label="Height"
        unit="mm"
        value={body.height}
        onNumber={(height) => set({ body: { ...body, height } })}
      />
      <NumberField
        label="Depth"
        unit="mm"
        value={body.depth}
        onNumber={(depth) => set({ body: { ...body, depth } })}
      />
      <TextField
        label="Plate opening"
        value={device.opening ?? ''}
        onText={(opening) => set({ opening: opening || undefined })}
      />
      <TextField
        label="Shade"
        value={device.shade ?? ''}
        onText={(shade) => set({ shade: shade || undefined })}
      />
      <NumberField
        label="Face proud of the plate"
        unit="mm"
        min={-20}
        value={device.faceProud}
        onNumber={(faceProud) => set({ faceProud })}
      />
      <TextField
        label="Colours, with commas"
        value={(device.colours ?? []).join(', ')}
        onText={(text) => set({ colours: wordsOf(text) })}
      />
      <Toggle
        label="Brings its own plate"
        on={device.ownPlate === true}
        onToggle={(ownPlate) => set({ ownPlate })}
      />
      <Toggle label="Side fins that come off" on={device.fins === true} onToggle={(fins) => set({ fins })} />
    </Group>
  );
}

export function RadioAndPower({ device, set }: Section) {
  const { job } = useJob();
  return (
    <Group title="Radio, assistants and power">
      <PickOne
        label="Radio"
        value={device.radio}
        options={options(['wifi', 'mesh', 'subghz', 'maker', 'ble', 'none'], RADIO_WORDS)}
        onChoice={(radio) => set({ radio })}
      />
      <PickOne
        label="Works through the hub"
        value={device.hubId ?? ''}
        options={[
          { value: '', label: 'none needed' },
          ...job.catalogue.hubs.map((hub) => ({ value: hub.id, label: hub.name })),
        ]}
        onChoice={(hubId) => set({ hubId: hubId || undefined })}
      />
      <PickSeveral
        label="Assistants"
        placeholder="none"
        values={device.platforms}
        options={job.catalogue.platforms.map(({ name }) => ({ value: name, label: name }))}
        onChoice={(platforms) => set({ platforms })}
      />
      <PickSeveral
        label="Wi-Fi bands"
        placeholder="not said"
        values={device.wifiBands ?? []}
        options={options(['2.4', '5'], { '2.4': '2.4 GHz', '5': '5 GHz' })}
        onChoice={(wifiBands) => set({ wifiBands })}
      />
      <PickOne
        label="Controlled through"
        value={device.control ?? ''}
        options={[
          OPTIONAL,
          ...options(['local', 'maker-cloud', 'both'], {
            local: 'the house',
            'maker-cloud': 'the maker’s server',
            both: 'both',
          }),
        ]}
        onChoice={(control) => set({ control: (control || undefined) as Device['control'] })}
      />
      <PickOne
        label="Power"
        value={device.power ?? ''}
        options={[OPTIONAL, ...options(['mains', 'battery'])]}
        onChoice={(power) => set({ power: (power || undefined) as Device['power'] })}
      />
      <NumberField
        label="Standby"
        unit="W"
        value={device.standbyW}
        onNumber={(standbyW) => set({ standbyW })}
      />
      <NumberField
        label="Battery lasts"
        unit="years"
        value={device.batteryYears}
        onNumber={(batteryYears) => set({ batteryYears })}
      />
      <Toggle
        label="Repeats the mesh"
        on={device.repeater === true}
        onToggle={(repeater) => set({ repeater })}
      />
    </Group>
  );
}

export function Living({ device, set }: Section) {
  return (
    <Group title="To live with">
      <PickOne
        label="What one presses"
        value={device.actuator ?? ''}
        options={[OPTIONAL, ...options(['paddle', 'toggle', 'buttons', 'touch', 'dial'])]}
        onChoice={(actuator) => set({ actuator: (actuator || undefined) as Device['actuator'] })}
      />
      <PickOne
        label="Its light"
        value={device.indicator ?? ''}
        options={[OPTIONAL, ...options(['none', 'fixed', 'dimmable'])]}
        onChoice={(indicator) => set({ indicator: (indicator || undefined) as Device['indicator'] })}
      />
      <PickOne
        label="Comes on at"
        value={device.onLevel ?? ''}
        options={[OPTIONAL, ...options(['last', 'full', 'preset'])]}
        onChoice={(onLevel) => set({ onLevel: (onLevel || undefined) as Device['onLevel'] })}
      />
      <PickSeveral
        label="Senses"
        placeholder="none"
        values={device.senses ?? []}
        options={options(['motion', 'humidity', 'daylight'])}
        onChoice={(senses) => set({ senses: senses as Device['senses'] })}
      />
      <Toggle label="Clicks" on={device.audible === true} onToggle={(audible) => set({ audible })} />
      <Toggle label="Up is always on" on={device.upIsOn === true} onToggle={(upIsOn) => set({ upIsOn })} />
      <Toggle
        label="Has a microphone"
        on={device.microphone === true}
        onToggle={(microphone) => set({ microphone })}
      />
      <Toggle label="Scenes" on={device.scenes === true} onToggle={(scenes) => set({ scenes })} />
      <Toggle
        label="Steers bulbs"
        on={device.bulbController === true}
        onToggle={(bulbController) => set({ bulbController })}
      />
      {device.bulbController && (
        <TextField
          label="Bulb families, with commas"
          value={(device.bulbFamilies ?? []).join(', ')}
          onText={(text) => set({ bulbFamilies: wordsOf(text) })}
        />
      )}
    </Group>
  );
}
